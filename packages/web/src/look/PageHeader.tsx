import type { ReactNode } from 'react';
import { NavLink } from 'react-router';
import styled from 'styled-components';
import { look } from './theme.js';

/** The head over pages that are not about one picture. */
export function PageHeader({ children }: { readonly children?: ReactNode }) {
  return (
    <Header>
      <Brand>Tersum</Brand>
      <p>Repair bench for photographs</p>
      <nav aria-label="Pages">
        <NavLink to="/">Jobs</NavLink>
        <NavLink to="/reference">Reference</NavLink>
      </nav>
      {children}
    </Header>
  );
}

const Header = styled.header`
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 0 32px;
  height: 56px;
  border-bottom: 1px solid ${look.hairline};
  p {
    flex: 1;
    color: ${look.inkSoft};
  }
  nav {
    display: flex;
    gap: 4px;
    align-self: stretch;
  }
  nav a {
    display: grid;
    place-items: center;
    padding: 0 10px;
    color: ${look.inkSoft};
    text-decoration: none;
    border-bottom: 2px solid transparent;
  }
  nav a[aria-current='page'] {
    color: ${look.ink};
    font-weight: 600;
    border-bottom-color: ${look.done};
  }
`;

const Brand = styled.span`
  font-size: 19px;
  font-weight: 700;
  letter-spacing: -0.01em;
`;
