// Linear prediction on one tile: see src/predict for what it does and why.
// A tile's cells hold four floats (three colours and nothing) or one (their mean); `offsets` are cells from a cell to
// each of its `count` neighbours. A stretch is three words: its first cell, the one after its last, the address of its taps.
export { bring } from './predict/bring';
