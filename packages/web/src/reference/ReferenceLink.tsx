import { BookOpen } from 'lucide-react';
import { Link } from 'react-router';
import styled from 'styled-components';
import { look } from '../look/theme.js';

/** Leads from where a rule is used to the page that explains it. */
export function ReferenceLink({
  to,
  children,
}: {
  readonly to: string;
  readonly children: string;
}) {
  return (
    <Quietly to={`/reference#${to}`} target="_blank">
      <BookOpen size={12} aria-hidden /> {children}
    </Quietly>
  );
}

const Quietly = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 4px;
  font-size: 11px;
  color: ${look.inkSoft};
  text-decoration-color: ${look.hairline};
  &:hover {
    color: ${look.done};
  }
`;
