import * as d from '@tersum/document';
import { z } from 'zod';

/** One operation of the HTTP interface; paths as Express writes them, below /api. */
export interface Operation {
  readonly method: 'get' | 'post' | 'put' | 'delete';
  readonly path: string;
  readonly summary: string;
  readonly body?: z.ZodType;
  /** The answer's schema, or its media type. */
  readonly answer?: z.ZodType | string;
  /** Of the answer; 200 unless said otherwise. */
  readonly status?: number;
}

type More = Pick<Operation, 'body' | 'answer' | 'status'>;

function operation(line: string, summary: string, more: More = {}): Operation {
  const [method, path] = line.split(' ') as [Operation['method'], string];
  return { method, path, summary, ...more };
}

const swept = z.object({
  records: d.PictureRecordsSchema,
  survey: d.SurveyAnswerSchema,
  repairIds: z.array(z.uuid().nullable()),
});
const survey = { answer: d.SurveyAnswerSchema };
const records = { answer: d.PictureRecordsSchema };

/** Everything the server answers, with the schemas that check it. */
export const OPERATIONS: readonly Operation[] = [
  operation('get /health', 'Whether the server is up', {
    answer: z.object({ status: z.literal('ok'), version: z.string() }),
  }),
  operation('get /jobs', 'All jobs, the ones due first on top', { answer: z.array(d.JobSchema) }),
  operation('post /jobs', 'Begin a job', {
    body: d.JobDraftSchema,
    answer: d.JobSchema,
    status: 201,
  }),
  operation('get /jobs/:id', 'One job', { answer: d.JobSchema }),
  operation('put /jobs/:id', 'Change what is written about a job', {
    body: d.JobDraftSchema,
    answer: d.JobSchema,
  }),
  operation('delete /jobs/:id', 'Throw a job away; it can be restored'),
  operation('post /jobs/:id/restore', 'Take a job back', { answer: d.JobSchema }),
  operation('post /jobs/:id/archive', 'Put a job among the finished ones, or back', {
    body: z.object({ archived: z.boolean() }),
    answer: d.JobSchema,
  }),
  operation('post /jobs/:id/duplicate', 'A new job with the same pictures as received', {
    answer: d.JobSchema,
    status: 201,
  }),
  operation('post /jobs/:id/pictures', 'Add a picture: multipart form, field file', {
    answer: d.PictureSchema,
    status: 201,
  }),
  operation('get /jobs/:id/contact.pdf', 'Contact sheet', { answer: 'application/pdf' }),
  operation('get /jobs/:id/contact.png', 'Contact sheet', { answer: 'image/png' }),
  operation('get /jobs/:id/donors', 'Donors kept at hand', { answer: z.array(d.KeptDonorSchema) }),
  operation('post /jobs/:id/donors', 'Keep a donor at hand', {
    body: d.KeptDonorDraftSchema,
    answer: d.KeptDonorSchema,
    status: 201,
  }),
  operation('delete /jobs/:id/donors/:donor', 'Forget a donor'),
  operation('post /jobs/:id/joins/plan', 'What joined frames will come to', {
    body: d.JoinQuerySchema,
    answer: d.JoinPlanSchema,
  }),
  operation(
    'post /jobs/:id/makings',
    'Begin to make new pictures: joined, freed of reflections, scanned',
    {
      body: d.MakingSchema,
      answer: d.MakingStatusSchema,
      status: 202,
    },
  ),
  operation('get /jobs/:id/makings/:making', 'How a making stands', {
    answer: d.MakingStatusSchema,
  }),
  operation('delete /jobs/:id/makings/:making', 'End a making'),

  operation('get /pictures/:id', 'A picture with all its records', records),
  operation('post /pictures/:id/changes', 'Change records, all or none', {
    body: d.ChangeSchema,
    ...records,
  }),
  operation('post /pictures/:id/undo', 'Undo', { body: d.VersionSchema, ...records }),
  operation('post /pictures/:id/redo', 'Redo', { body: d.VersionSchema, ...records }),
  operation('post /pictures/:id/preview', 'What a change would show', {
    body: d.PreviewSchema,
    answer: d.ViewSchema,
  }),
  operation('get /pictures/:id/view', 'What the screen should show', { answer: d.ViewSchema }),
  operation('get /pictures/:id/events', 'What happens to a picture, as it happens', {
    answer: 'text/event-stream',
  }),
  operation('get /pictures/:id/tiles/:level/:column/:row/:key', 'A tile of 256 px', {
    answer: 'image/bmp',
  }),
  operation('get /pictures/:id/thumb', 'A small picture; state original or repaired', {
    answer: 'image/jpeg',
  }),
  operation('get /pictures/:id/part', 'A part of the mended picture at 16 bits', {
    answer: 'application/octet-stream',
  }),
  operation('put /pictures/:id/ppi', 'Say how many pixels an inch of the print has', {
    body: d.DensitySchema,
    ...records,
  }),

  operation('post /pictures/:id/donors', 'Look for donors', {
    body: d.DonorQuerySchema,
    answer: d.DonorAnswerSchema,
  }),
  operation('post /pictures/:id/twins', 'Look for a twin', {
    body: d.SiteQuerySchema,
    answer: d.TwinAnswerSchema,
  }),
  operation('post /pictures/:id/advice', 'What is advised for a site', {
    body: d.SiteQuerySchema,
    answer: d.AdviceAnswerSchema,
  }),
  operation('post /pictures/:id/region', 'Outline a thing from a scribble', {
    body: d.RegionQuerySchema,
    answer: d.RegionAnswerSchema,
  }),
  operation('post /pictures/:id/line/ends', 'Follow a line to its ends', {
    body: d.KnownLineSchema,
    answer: d.KnownLineSchema,
  }),
  operation('post /pictures/:id/line', 'The line between two clicks', {
    body: d.LineQuerySchema,
    answer: d.LineAnswerSchema,
  }),
  operation('post /pictures/:id/variants', 'Three more fillings', {
    body: d.VariantQuerySchema,
    answer: d.VariantAnswerSchema,
  }),
  operation('post /pictures/:id/grounds', 'Grounds round a fill', {
    body: d.SiteQuerySchema,
    answer: d.GroundAnswerSchema,
  }),
  operation('post /pictures/:id/guides', 'Guides across a fill', {
    body: d.GuideQuerySchema,
    answer: d.GuideAnswerSchema,
  }),
  operation('post /pictures/:id/portions', 'Portions of a fill', {
    body: d.SiteQuerySchema,
    answer: d.PortionAnswerSchema,
  }),
  operation('get /pictures/:id/searches/:search/confidence', 'How sure a fill is', {
    answer: d.ConfidenceAnswerSchema,
  }),

  operation('get /pictures/:id/survey', 'The survey and its findings', survey),
  operation('post /pictures/:id/survey', 'Begin a survey', { ...survey, status: 202 }),
  operation('post /pictures/:id/survey/cancel', 'End a survey', survey),
  operation('post /pictures/:id/survey/settings', 'How it is surveyed and used', {
    body: d.SurveySettingsSchema,
    ...survey,
  }),
  operation('post /pictures/:id/findings', 'Add what lies at a place', {
    body: d.AddFindingSchema,
    answer: z.object({ id: z.uuid(), survey: d.SurveyAnswerSchema }),
  }),
  operation('post /pictures/:id/findings/dismiss', 'Keep findings as they are, or not', {
    body: d.DismissSchema,
    ...survey,
  }),
  operation('post /pictures/:id/findings/take-out', 'Take a finding out of its sweep', {
    body: d.TakeOutSchema,
    answer: swept,
  }),
  operation('post /pictures/:id/sweeps', 'Mend findings in one go', {
    body: d.SweepSchema,
    answer: swept,
  }),

  operation('get /pictures/:id/proof', 'The proof kept last', { answer: d.KeptProofSchema }),
  operation('post /pictures/:id/proof', 'Measure what gives the repairs away', {
    answer: d.ProofAnswerSchema,
  }),
  operation('post /pictures/:id/proof/stand', 'Let a tell stand, or have it told again', {
    body: d.StandSchema,
    answer: d.KeptProofSchema,
  }),
  operation('get /pictures/:id/sweep', 'Frames that were looked at', {
    answer: d.SweepAnswerSchema,
  }),
  operation('post /pictures/:id/sweep', 'Keep what was seen of a frame', {
    body: d.SweptFrameSchema,
    answer: d.SweepAnswerSchema,
  }),
  operation('get /pictures/:id/work', 'The log of working time', { answer: d.WorkLogSchema }),
  operation('post /pictures/:id/work', 'Keep a piece of working time', { body: d.WorkTimeSchema }),

  operation('post /pictures/:id/tilt', 'How far the content stands turned', {
    answer: d.TiltAnswerSchema,
  }),
  operation('post /pictures/:id/blocks', 'Blocks that a compression left', {
    answer: d.BlocksAnswerSchema,
  }),
  operation('post /pictures/:id/detail', 'Up to where the pixels hold detail', {
    answer: d.DetailAnswerSchema,
  }),
  operation('post /pictures/:id/prints', 'Prints that lie in the picture', {
    answer: d.PrintsAnswerSchema,
  }),
  operation('post /pictures/:id/fade', 'Steps that undo fading', { answer: d.FadeAnswerSchema }),
  operation('post /pictures/:id/levels', 'Levels to a share that may clip', {
    body: d.LevelsQuerySchema,
    answer: d.LevelsAnswerSchema,
  }),
  operation('post /pictures/:id/widen', 'Try a wider canvas both ways, small', {
    body: d.WidenQuerySchema,
    answer: d.WidenAnswerSchema,
  }),
  operation('post /pictures/:id/subject', 'Outlines of what the picture is of', {
    answer: d.OutlinesAnswerSchema,
  }),
  operation('post /pictures/:id/backdrop', 'Outlines of what lies beyond its backdrop', {
    answer: d.OutlinesAnswerSchema,
  }),
  operation('post /pictures/:id/channels', 'The channels, measured', {
    answer: d.ChannelsAnswerSchema,
  }),
  operation('post /pictures/:id/split', 'Make every print a picture of its own', {
    body: d.SplitSchema,
    answer: z.object({ pictures: z.array(d.PictureSchema) }),
    status: 201,
  }),

  operation('post /pictures/:id/exports', 'Begin to make a file', {
    body: d.ExportSchema,
    answer: d.ExportStatusSchema,
    status: 202,
  }),
  operation('get /exports/:id', 'How a file stands', { answer: d.ExportStatusSchema }),
  operation('delete /exports/:id', 'End an export'),
  operation('get /exports/:id/file', 'The file', { answer: 'application/octet-stream' }),
  operation('get /pictures/:id/report.json', 'Treatment report', { answer: d.ReportSchema }),
  operation('get /pictures/:id/report.pdf', 'Treatment report', { answer: 'application/pdf' }),
  operation('get /pictures/:id/report.html', 'Treatment report', { answer: 'text/html' }),

  operation('get /house', 'Working hours, rate and rest', { answer: d.HouseSchema }),
  operation('put /house', 'Set them', { body: d.HouseSchema, answer: d.HouseSchema }),
  operation('get /house/limits', 'From which values on repairs tell', { answer: d.LimitsSchema }),
  operation('put /house/limits', 'Set them', { body: d.LimitsSchema, answer: d.LimitsSchema }),
  operation('get /house/times', 'Own seconds for a finding, by kind', { answer: d.OwnTimesSchema }),
  operation('get /house/recipes', 'Ways of delivering', { answer: d.RecipeListSchema }),
  operation('post /house/recipes', 'Keep one by name', {
    body: d.ExportRecipeSchema,
    answer: d.KeptRecipeSchema,
    status: 201,
  }),
  operation('delete /house/recipes/:id', 'Forget one'),
  operation('get /schemas/:name', 'JSON Schema of what leaves the house'),
];
