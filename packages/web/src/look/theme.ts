/** Colours and measures of the viewing booth. */
export const look = {
  paper: '#f6f3ec',
  paperDeep: '#ece7db',
  paperHigh: '#fcfaf6',
  hairline: '#d9d3c6',
  ink: '#1f2326',
  inkSoft: '#565c57',
  done: '#1f6f64',
  doneSoft: '#dfeae4',
  todo: '#b83a22',
  todoSoft: '#f5e2da',
  corner: '3px',
  words: "'Bricolage Grotesque Variable', 'Liberation Sans', sans-serif",
  figures: "'IBM Plex Mono', 'Liberation Mono', monospace",
} as const;

/** The neutral surround for judging tone. */
export const SURROUNDS = { light: '#b1b1b1', dark: '#363636' } as const;
export type Surround = keyof typeof SURROUNDS;
