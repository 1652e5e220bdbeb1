import type { ExportFormat, ExportStatus } from '@tersum/document';
import { DEFAULT_RULE, EXPORT_FORMATS, fileNameOf } from '@tersum/document';
import { format as formatDate } from 'date-fns';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { messageOf } from '../../api/client.js';
import { getExport, postExport } from '../../api/pictures.js';
import { Dial } from '../../look/Dial.js';
import { Caption, Choice, Choices, Figure, MainPush, Push, Warning } from '../../look/parts.js';
import { Actions, Field, Window } from '../../look/Window.js';
import { useBenchState } from '../model/context.js';

const NAMES: Record<ExportFormat, string> = {
  png: 'PNG',
  tiff: 'TIFF',
  jpeg: 'JPEG',
  webp: 'WebP',
  ora: 'OpenRaster',
  zip: 'Job',
};
const RULE_KEY = 'tersum.export.rule';

/** Makes a flat file of the picture as it stands, and hands it to the browser. */
export function ExportWindow({ onClose }: { onClose(): void }) {
  const records = useBenchState((s) => s.records);
  const [format, setFormat] = useState<ExportFormat>('png');
  const [quality, setQuality] = useState(92);
  const [finished, setFinished] = useState(true);
  const [longest, setLongest] = useState<number | null>(null);
  const [rule, setRule] = useState(localStorage.getItem(RULE_KEY) ?? DEFAULT_RULE);
  const [status, setStatus] = useState<ExportStatus | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const id = status?.id;
  const working = status?.state === 'working';

  useEffect(() => {
    if (!id || !working) return;
    const timer = setInterval(() => {
      getExport(id).then(setStatus, (error: unknown) => setProblem(messageOf(error)));
    }, 250);
    return () => clearInterval(timer);
  }, [id, working]);

  if (!records) return null;
  const toFinish = records.tones.length > 0 || records.frames.length > 0;
  const whole = format === 'ora' || format === 'zip';
  const lossy = format === 'jpeg' || format === 'webp';
  const facts = {
    job: records.jobTitle,
    picture: records.picture.name,
    date: formatDate(new Date(), 'yyyy-MM-dd'),
  };
  const begin = async (): Promise<void> => {
    setProblem(null);
    localStorage.setItem(RULE_KEY, rule);
    try {
      setStatus(
        await postExport(records.picture.id, {
          format,
          quality,
          rule,
          finished,
          longest: whole ? null : longest,
        }),
      );
    } catch (error) {
      setProblem(messageOf(error));
    }
  };
  return (
    <Window title="Export" isOpen onClose={onClose}>
      <Field as="div">
        <span>Format</span>
        <Choices
          aria-label="Format"
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[format]}
          onSelectionChange={(keys) => {
            setFormat([...keys][0] as ExportFormat);
            setStatus(null);
          }}
        >
          {EXPORT_FORMATS.map((id) => (
            <Choice key={id} id={id}>
              {NAMES[id]}
            </Choice>
          ))}
        </Choices>
        <Caption>
          {lossy
            ? '8 bits a channel, smaller, not exact.'
            : format === 'zip'
              ? 'Original, records and donor maps: opens elsewhere and renders to the same pixels.'
              : format === 'ora'
                ? 'The original with every repair layer over it, and the picture as it is seen.'
                : toFinish && finished
                  ? `${records.picture.bits} bits a channel, with tone steps and frame.`
                  : `${records.picture.bits} bits a channel. Outside all repairs every pixel is the original’s, exactly.`}
        </Caption>
      </Field>
      {lossy && (
        <Dial label="Quality" unit="" least={1} most={100} value={quality} onChange={setQuality} />
      )}
      {toFinish && format !== 'zip' && (
        <Field as="div">
          <span>Tone steps and frame</span>
          <Choices
            aria-label="Tone steps and frame"
            selectionMode="single"
            disallowEmptySelection
            selectedKeys={[finished ? 'in' : 'out']}
            onSelectionChange={(keys) => {
              setFinished([...keys][0] === 'in');
              setStatus(null);
            }}
          >
            <Choice id="in">Put in</Choice>
            <Choice id="out">Repairs alone</Choice>
          </Choices>
        </Field>
      )}
      {!whole && (
        <Field>
          <span>Longest side in px; empty for the picture’s own size</span>
          <input
            inputMode="numeric"
            value={longest ?? ''}
            onChange={(event) => {
              const digits = event.target.value.replace(/\D/g, '').slice(0, 5);
              setLongest(digits ? Number(digits) : null);
              setStatus(null);
            }}
          />
        </Field>
      )}
      <Field>
        <span>
          File name: {'{job}'}, {'{picture}'} and {'{date}'} are put in
        </span>
        <input value={rule} maxLength={200} onChange={(event) => setRule(event.target.value)} />
      </Field>
      <Figure>{fileNameOf(rule, facts, format)}</Figure>
      {problem && <Warning>{problem}</Warning>}
      {status?.state === 'failed' && <Warning>{status.message}</Warning>}
      {status?.warning && <Warning>{status.warning}</Warning>}
      <Reports>
        <a href={`/api/pictures/${records.picture.id}/report.pdf`} download="treatment report.pdf">
          Treatment report (PDF)
        </a>
        <a
          href={`/api/pictures/${records.picture.id}/report.json`}
          download="treatment report.json"
        >
          as data (JSON)
        </a>
        <a href={`/api/jobs/${records.picture.jobId}/contact.pdf`} download="contact sheet.pdf">
          Contact sheet of the job (PDF)
        </a>
      </Reports>
      <Actions>
        <Push onPress={onClose}>Close</Push>
        {status?.state === 'ready' ? (
          <Save href={`/api/exports/${status.id}/file`} download={status.fileName}>
            Save file
          </Save>
        ) : (
          <MainPush
            isDisabled={working || !rule.trim() || (longest !== null && longest < 16)}
            onPress={() => void begin()}
          >
            {working ? `Writing ${Math.round((status?.share ?? 0) * 100)} %` : 'Make file'}
          </MainPush>
        )}
      </Actions>
    </Window>
  );
}

const Reports = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 14px;
  padding-top: 10px;
  border-top: 1px solid #d9d3c6;
  font-size: 12px;
  a {
    color: #1f6f64;
  }
`;

const Save = styled.a`
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  padding: 0 12px;
  border-radius: 3px;
  background: #1f6f64;
  color: #fff;
  font-weight: 600;
  text-decoration: none;
`;
