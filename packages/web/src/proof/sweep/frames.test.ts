import type { SweptFrame, View } from '@tersum/document';
import { contentOf, FRAME, frameStates, framesOf, nextDue } from './frames.js';

const PICTURE = { x: 0, y: 0, width: 1300, height: 900 };
const view = (tiles: Record<string, string> = {}, canvas = PICTURE): View => ({
  version: 1,
  base: 'original',
  canvas,
  tiles,
  donorChanged: [],
  failed: {},
  unsure: {},
});

test('frames cover every pixel once, in reading order, none larger than a frame', () => {
  const frames = framesOf(PICTURE);
  expect(frames).toHaveLength(6);
  expect(frames[0]).toEqual({ x: 0, y: 0, width: 433, height: 450 });
  expect(frames[1]!.x).toBe(433);
  expect(frames[3]).toMatchObject({ x: 0, y: 450 });
  expect(frames.reduce((sum, f) => sum + f.width * f.height, 0)).toBe(1300 * 900);
  for (const f of frames) {
    expect(f.width).toBeLessThanOrEqual(FRAME.width);
    expect(f.height).toBeLessThanOrEqual(FRAME.height);
  }
  expect(framesOf({ x: 0, y: 0, width: 10, height: 10 })).toEqual([
    { x: 0, y: 0, width: 10, height: 10 },
  ]);
});

test('a frame’s content changes with the tiles that meet it, and with no other', () => {
  const [first, , third] = framesOf(PICTURE);
  const plain = view();
  // Tile 0/1/0 spans 256..511 across: it meets the first frame (0..432) and the second, not the third.
  const mended = view({ '0/1/0': 'abc' });
  expect(contentOf(first!, mended)).not.toBe(contentOf(first!, plain));
  expect(contentOf(third!, mended)).toBe(contentOf(third!, plain));
});

test('on a wider canvas frames begin at its corner, and their tiles are counted from there', () => {
  const canvas = { x: -300, y: -20, width: 1300, height: 900 };
  const [first, , third] = framesOf(canvas);
  expect(first).toEqual({ x: -300, y: -20, width: 433, height: 450 });
  const mended = view({ '0/1/0': 'abc' }, canvas);
  expect(contentOf(first!, mended)).not.toBe(contentOf(first!, view({}, canvas)));
  expect(contentOf(third!, mended)).toBe(contentOf(third!, view({}, canvas)));
});

test('what was seen stands as long as it looks the same; after a change it is due again', () => {
  const frames = framesOf(PICTURE);
  const plain = view();
  const seen = (frame: number, state: SweptFrame['state']): SweptFrame => ({
    frame,
    state,
    content: contentOf(frames[frame]!, plain),
  });
  const swept = [seen(0, 'passed'), seen(2, 'marked')];
  expect(frameStates(frames, plain, swept)).toEqual([
    'passed',
    'due',
    'marked',
    'due',
    'due',
    'due',
  ]);
  const mended = frameStates(frames, view({ '0/1/0': 'abc' }), swept);
  expect(mended[0]).toBe('again');
  expect(mended[2]).toBe('marked');
  expect(nextDue(mended, 0)).toBe(1);
  // From the end it goes on at the start.
  expect(nextDue(mended, 5)).toBe(0);
  expect(nextDue(['passed', 'marked'], 0)).toBeNull();
});
