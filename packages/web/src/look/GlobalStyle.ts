import { createGlobalStyle } from 'styled-components';
import { look } from './theme.js';

export const GlobalStyle = createGlobalStyle`
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; margin: 0; }
  body {
    background: ${look.paper};
    color: ${look.ink};
    font: 13px/1.45 ${look.words};
    -webkit-font-smoothing: antialiased;
  }
  h1, h2, h3, p { margin: 0; font-weight: inherit; font-size: inherit; }
  button, input, select, textarea { font: inherit; color: inherit; }
  :focus { outline: none; }
  :focus-visible { outline: 2px solid ${look.done}; outline-offset: 1px; }
  ::selection { background: ${look.doneSoft}; }
  @media (prefers-reduced-motion: reduce) {
    * { animation: none !important; transition: none !important; }
  }
`;
