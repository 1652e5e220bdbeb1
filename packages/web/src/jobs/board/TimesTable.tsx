import { FINDING_KINDS, SECONDS } from '@tersum/core';
import type { House } from '@tersum/document';
import { FINDING_NAMES } from '@tersum/document';
import { useFormContext } from 'react-hook-form';
import styled from 'styled-components';
import { useOwnTimes } from '../../api/work.js';
import { Figure } from '../../look/parts.js';
import { look } from '../../look/theme.js';

const amount = (v: unknown): number | undefined =>
  v === '' || v === null || v === undefined ? undefined : Number(v);

/** Seconds a finding of every kind: usual by hand, measured, and as they are set; what is set goes before the others. */
export function TimesTable() {
  const { data: own } = useOwnTimes();
  const { register, formState } = useFormContext<House>();
  const problem = FINDING_KINDS.map((kind) => formState.errors.times?.[kind]?.message).find(
    Boolean,
  );
  return (
    <Times>
      <h3>Seconds a finding</h3>
      <table>
        <thead>
          <tr>
            <th scope="col">Kind</th>
            <th scope="col">Usual by hand</th>
            <th scope="col">Yours, measured</th>
            <th scope="col">Set</th>
          </tr>
        </thead>
        <tbody>
          {FINDING_KINDS.map((kind) => {
            const { each, per100 } = SECONDS[kind];
            const measured = own?.[kind];
            return (
              <tr key={kind}>
                <th scope="row">{FINDING_NAMES[kind][0]}</th>
                <td>
                  <Figure>{each}</Figure>
                  {per100 > 0 && <small> + {per100} each 100 px</small>}
                </td>
                <td>
                  {measured ? (
                    <>
                      <Figure>{measured.seconds.toFixed(1)}</Figure>
                      <small> median of {measured.times}</small>
                    </>
                  ) : (
                    <small>not yet</small>
                  )}
                </td>
                <td>
                  <input
                    type="number"
                    step="any"
                    aria-label={`Seconds for ${FINDING_NAMES[kind][0].toLowerCase()}`}
                    {...register(`times.${kind}`, { setValueAs: amount })}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {problem && <em role="alert">{problem}</em>}
      <p>
        What is left to do is reckoned by what is set; else by what was measured, from three sweeps
        of a kind on; else by what is usual.
      </p>
    </Times>
  );
}

const Times = styled.section`
  border-top: 1px solid ${look.hairline};
  padding-top: 12px;
  font-size: 12px;
  h3 {
    font-weight: 600;
    margin-bottom: 6px;
  }
  table {
    width: 100%;
    border-collapse: collapse;
  }
  th {
    font-weight: 400;
    text-align: left;
  }
  thead th,
  small,
  p {
    color: ${look.inkSoft};
    font-size: 11px;
  }
  td,
  tbody th {
    padding: 2px 8px 2px 0;
    border-bottom: 1px solid ${look.hairline};
  }
  input {
    width: 72px;
    padding: 2px 6px;
    border: 1px solid ${look.hairline};
    border-radius: ${look.corner};
    background: ${look.paperHigh};
  }
  em {
    font-style: normal;
    color: ${look.todo};
  }
  p {
    margin-top: 8px;
  }
`;
