/**
 * What variants of one filling differ by besides their seeds: how much texture counts beside colour and structure. The
 * first is what one filling alone would be.
 */
export const FILL_VARIANTS = [
  { name: 'balanced', texture: 1 },
  { name: 'structure', texture: 0.4 },
  { name: 'texture', texture: 2 },
] as const;
