import { CAUTIONS } from '@tersum/core';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import styled from 'styled-components';
import { PageHeader } from '../look/PageHeader.js';
import { look } from '../look/theme.js';
import { CalculatorCard } from './CalculatorCard.js';
import { CALCULATORS } from './calculators.js';
import { RULE_LISTS } from './rules.js';

/** The rules of thumb and the calculators. */
export function ReferencePage() {
  const { hash } = useLocation();
  useEffect(() => {
    document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  return (
    <>
      <PageHeader />
      <Main>
        <Contents aria-label="Contents">
          <h2>Reckon</h2>
          {CALCULATORS.map(({ id, title }) => (
            <Link key={id} to={`#${id}`} aria-current={hash === `#${id}` ? 'true' : undefined}>
              {title}
            </Link>
          ))}
          <h2>Rules</h2>
          {RULE_LISTS.map(({ id, title }) => (
            <Link key={id} to={`#${id}`} aria-current={hash === `#${id}` ? 'true' : undefined}>
              {title}
            </Link>
          ))}
          <Link to="#cautions">Cautions</Link>
        </Contents>
        <div>
          <h1>Reference</h1>
          <Intro>
            What the trade reckons in its head, reckoned here. Change any figure; the answer
            follows.
          </Intro>
          <Cards>
            {CALCULATORS.map((calculator) => (
              <CalculatorCard
                key={calculator.id}
                calculator={calculator}
                isCalled={hash === `#${calculator.id}`}
              />
            ))}
          </Cards>
          {RULE_LISTS.map(({ id, title, rows }) => (
            <List key={id} id={id} data-called={hash === `#${id}`}>
              <h2>{title}</h2>
              <dl>
                {rows.map(([what, how]) => (
                  <div key={what}>
                    <dt>{what}</dt>
                    <dd>{how}</dd>
                  </div>
                ))}
              </dl>
              <small>Common practice, no published source.</small>
            </List>
          ))}
          <List id="cautions">
            <h2>Cautions</h2>
            {CAUTIONS.map(({ id, text }) => (
              <p key={id}>{text}</p>
            ))}
          </List>
        </div>
      </Main>
    </>
  );
}

const Main = styled.main`
  max-width: 1120px;
  margin: 0 auto;
  padding: 24px 32px 96px;
  display: grid;
  grid-template-columns: 200px minmax(0, 1fr);
  gap: 40px;
  h1 {
    font-size: 26px;
    font-weight: 600;
    letter-spacing: -0.01em;
  }
`;

const Contents = styled.nav`
  position: sticky;
  top: 24px;
  align-self: start;
  display: grid;
  gap: 2px;
  h2 {
    font-size: 12px;
    font-weight: 600;
    color: ${look.inkSoft};
    margin: 12px 0 4px;
  }
  a {
    color: ${look.ink};
    text-decoration: none;
    padding: 2px 8px;
    border-left: 2px solid ${look.hairline};
  }
  a:hover,
  a[aria-current] {
    border-left-color: ${look.done};
    color: ${look.done};
  }
`;

const Intro = styled.p`
  color: ${look.inkSoft};
  margin: 4px 0 20px;
`;

const Cards = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  margin-bottom: 32px;
`;

const List = styled.section`
  border-top: 1px solid ${look.hairline};
  padding: 20px 0;
  scroll-margin-top: 16px;
  &[data-called='true'] h2 {
    color: ${look.done};
  }
  h2 {
    font-size: 16px;
    font-weight: 600;
    margin-bottom: 10px;
  }
  dl {
    margin: 0;
    display: grid;
    gap: 6px;
  }
  dl > div {
    display: grid;
    grid-template-columns: 200px 1fr;
    gap: 16px;
  }
  dt {
    font-weight: 600;
  }
  dd {
    margin: 0;
  }
  p {
    max-width: 70ch;
    margin-bottom: 8px;
  }
  small {
    display: block;
    margin-top: 10px;
    font-size: 11px;
    color: ${look.inkSoft};
  }
`;
