// Copies in a picture: what is asked of their tones, how they are corrected, how they fit. See src/repair for what and why.
// Samples are bytes, 16-bit words or floats; corrections are floats for bytes and doubles for the others.
import { askOf } from './repair/ask';
import { correctBy, holdBack } from './repair/correct';
import { Copies, Part } from './repair/memory';
import { Depths, layPiecesOf, takeOverOf } from './repair/piece';
import { layOverOf } from './repair/site';

export { box, places } from './repair/grain';
export {
  finenessBytes,
  finenessFloats,
  finenessWords,
  grainBytes,
  grainFloats,
  grainWords,
} from './repair/grain-of-kinds';
export { count, lay } from './repair/part';
export { blank, layDonors } from './repair/site';

export function askBytes(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  scratch: usize,
  asked: usize,
  range: i32,
  from: usize,
  to: usize,
): void {
  askOf<u8, f32>(copies, part, tie, ring, ends, scratch, asked, range, from, to);
}

export function correctBytes(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
  _range: i32,
  from: usize,
  to: usize,
): void {
  correctBy<u8, f32>(copies, part, correction, colour, from, to);
}

export function layOverBytes(
  copies: Copies,
  colour: usize,
  covered: usize,
  strength: f64,
  white: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layOverOf<u8, f32>(copies, colour, covered, strength, white, from, to);
}

export function layPiecesBytes(
  copies: Copies,
  colour: usize,
  open: usize,
  depths: Depths,
  pieces: usize,
  square: i32,
  unlike: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layPiecesOf<u8, f32>(copies, colour, open, depths, pieces, square, unlike, from, to);
}

export function askWords(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  scratch: usize,
  asked: usize,
  range: i32,
  from: usize,
  to: usize,
): void {
  askOf<u16, f64>(copies, part, tie, ring, ends, scratch, asked, range, from, to);
}

export function correctWords(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
  _range: i32,
  from: usize,
  to: usize,
): void {
  correctBy<u16, f64>(copies, part, correction, colour, from, to);
}

export function layOverWords(
  copies: Copies,
  colour: usize,
  covered: usize,
  strength: f64,
  white: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layOverOf<u16, f64>(copies, colour, covered, strength, white, from, to);
}

export function layPiecesWords(
  copies: Copies,
  colour: usize,
  open: usize,
  depths: Depths,
  pieces: usize,
  square: i32,
  unlike: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layPiecesOf<u16, f64>(copies, colour, open, depths, pieces, square, unlike, from, to);
}

export function askFloats(
  copies: Copies,
  part: Part,
  tie: f64,
  ring: f64,
  ends: f64,
  scratch: usize,
  asked: usize,
  range: i32,
  from: usize,
  to: usize,
): void {
  askOf<f32, f64>(copies, part, tie, ring, ends, scratch, asked, range, from, to);
}

export function correctFloats(
  copies: Copies,
  part: Part,
  correction: usize,
  colour: usize,
  _range: i32,
  from: usize,
  to: usize,
): void {
  correctBy<f32, f64>(copies, part, correction, colour, from, to);
}

export function layOverFloats(
  copies: Copies,
  colour: usize,
  covered: usize,
  strength: f64,
  white: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layOverOf<f32, f64>(copies, colour, covered, strength, white, from, to);
}

export function layPiecesFloats(
  copies: Copies,
  colour: usize,
  open: usize,
  depths: Depths,
  pieces: usize,
  square: i32,
  unlike: f64,
  _range: i32,
  from: i32,
  to: i32,
): void {
  layPiecesOf<f32, f64>(copies, colour, open, depths, pieces, square, unlike, from, to);
}

export function holdSingle(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
  many: usize,
  range: i32,
  from: i32,
  to: i32,
): void {
  holdBack<f32>(part, correction, colours, drift, tint, firmly, many, range, from, to);
}

export function takeOverSingle(
  copies: Copies,
  colour: usize,
  open: usize,
  pieces: usize,
  _range: i32,
  from: i32,
  to: i32,
): void {
  takeOverOf<f32>(copies, colour, open, pieces, from, to);
}

export function holdDouble(
  part: Part,
  correction: usize,
  colours: i32,
  drift: f64,
  tint: f64,
  firmly: f64,
  many: usize,
  range: i32,
  from: i32,
  to: i32,
): void {
  holdBack<f64>(part, correction, colours, drift, tint, firmly, many, range, from, to);
}

export function takeOverDouble(
  copies: Copies,
  colour: usize,
  open: usize,
  pieces: usize,
  _range: i32,
  from: i32,
  to: i32,
): void {
  takeOverOf<f64>(copies, colour, open, pieces, from, to);
}
