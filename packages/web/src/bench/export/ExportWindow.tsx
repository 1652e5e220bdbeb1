import type { ExportRequest } from '@tersum/document';
import { DEFAULT_RULE, ExportSchema, fileNameOf } from '@tersum/document';
import { format as formatDate } from 'date-fns';
import { useState } from 'react';
import styled from 'styled-components';
import { useRecipes } from '../../api/exports.js';
import { CautionNotes } from '../../reference/CautionNotes.js';
import { Figure, MainPush, Push, Warning } from '../../look/parts.js';
import { look } from '../../look/theme.js';
import { Actions, Window } from '../../look/Window.js';
import { useBenchState } from '../model/context.js';
import { OrderForm } from './OrderForm.js';
import { RecipeList } from './RecipeList.js';
import { useExports } from './useExports.js';

const RULE_KEY = 'tersum.export.rule';

/** Makes files of the picture as it stands, one or by several recipes at once, and hands them to the browser. */
export function ExportWindow({ onClose }: { onClose(): void }) {
  const records = useBenchState((s) => s.records);
  const pictureId = useBenchState((s) => s.pictureId);
  const { data } = useRecipes();
  const [order, setOrder] = useState<ExportRequest>(() =>
    ExportSchema.parse({ format: 'png', rule: localStorage.getItem(RULE_KEY) ?? DEFAULT_RULE }),
  );
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const { files, working, problem, begin, clear } = useExports(pictureId);
  if (!records) return null;
  const recipes = data?.recipes ?? [];
  const chosen = recipes.filter((r) => ticked.has(r.id)).map((r) => r.order);
  const facts = {
    job: records.jobTitle,
    picture: records.picture.name,
    date: formatDate(new Date(), 'yyyy-MM-dd'),
  };
  const change = (next: ExportRequest): void => {
    setOrder(next);
    clear();
  };
  const make = (): void => {
    localStorage.setItem(RULE_KEY, order.rule);
    void begin(chosen.length ? chosen : [order]);
  };
  const shares = files.reduce((sum, f) => sum + f.share, 0) / (files.length || 1);
  const ready = files.length > 0 && !working;
  const wrong =
    !order.rule.trim() ||
    (order.longest !== null && order.longest < 16) ||
    (order.ppi !== null && order.ppi < 1);
  return (
    <Window title="Export" isOpen width={520} onClose={onClose}>
      <CautionNotes place="delivery" />
      <OrderForm
        picture={records.picture}
        toFinish={records.tones.length > 0 || records.frames.length > 0}
        order={order}
        onChange={change}
      />
      <Figure>{fileNameOf(order.rule, facts, order.format)}</Figure>
      <RecipeList
        recipes={recipes}
        ticked={ticked}
        order={order}
        onTick={(next) => {
          setTicked(next);
          clear();
        }}
        onUse={(recipe) => change(recipe.order)}
      />
      {problem && <Warning>{problem}</Warning>}
      {files.map((file) => (
        <div key={file.id}>
          {file.state === 'failed' && <Warning>{file.message}</Warning>}
          {file.warning && <Warning>{file.warning}</Warning>}
        </div>
      ))}
      <Reports aria-label="Papers">
        <span>Treatment report</span>
        {(['pdf', 'html', 'json'] as const).map((kind) => (
          <a
            key={kind}
            href={`/api/pictures/${pictureId}/report.${kind}`}
            download={`treatment report.${kind}`}
            aria-label={`Treatment report (${kind.toUpperCase()})`}
          >
            {kind.toUpperCase()}
          </a>
        ))}
        <span>Contact sheet of the job</span>
        {(['pdf', 'png'] as const).map((kind) => (
          <a
            key={kind}
            href={`/api/jobs/${records.picture.jobId}/contact.${kind}`}
            download={`contact sheet.${kind}`}
            aria-label={`Contact sheet of the job (${kind.toUpperCase()})`}
          >
            {kind.toUpperCase()}
          </a>
        ))}
      </Reports>
      <Actions>
        {working ? <Push onPress={clear}>Cancel</Push> : <Push onPress={onClose}>Close</Push>}
        {ready ? (
          files
            .filter((f) => f.state === 'ready')
            .map((file) => (
              <Save key={file.id} href={`/api/exports/${file.id}/file`} download={file.fileName}>
                {files.length > 1 ? `Save ${file.fileName}` : 'Save file'}
              </Save>
            ))
        ) : (
          <MainPush isDisabled={working || wrong} onPress={make}>
            {working
              ? `Writing ${Math.round(100 * shares)} %`
              : chosen.length > 1
                ? `Make ${chosen.length} files`
                : 'Make file'}
          </MainPush>
        )}
      </Actions>
    </Window>
  );
}

const Reports = styled.div.attrs({ role: 'group' })`
  display: grid;
  grid-template-columns: 1fr repeat(3, auto);
  gap: 4px 14px;
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid ${look.hairline};
  font-size: 12px;
  a {
    color: ${look.done};
  }
  span {
    grid-column: 1;
  }
`;

const Save = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  padding: 0 12px;
  border-radius: ${look.corner};
  background: ${look.done};
  color: #fff;
  font-weight: 600;
  text-decoration: none;
`;
