import { Link } from 'react-router';
import styled from 'styled-components';
import { look } from './theme.js';

/** Shown where an address leads nowhere or a page could not be drawn. */
export function LostPage() {
  return (
    <Page>
      <h1>This page is not here</h1>
      <p>
        The address leads nowhere, or the page could not be drawn. Nothing that was saved is lost.
      </p>
      <Link to="/">Go to the job board</Link>
    </Page>
  );
}

const Page = styled.main`
  max-width: 44ch;
  margin: 20vh auto;
  display: grid;
  gap: 12px;
  h1 {
    font-size: 22px;
    font-weight: 600;
  }
  a {
    color: ${look.done};
  }
`;
