import { markAt } from './mark-at.js';
import { agreement, Scene } from './test-scenes.js';

describe('mark at a place', () => {
  test('a blue emblem on shaded cloth is taken up whole, its shade left alone', () => {
    const scene = new Scene(400, 300, 7);
    const { data } = scene.picture;
    // Cloth in folds: lighter and darker across.
    for (let p = 0; p < 400 * 300; p++) {
      const fold = 0.8 + 0.35 * Math.sin((p % 400) / 38);
      for (let c = 0; c < 3; c++)
        data[3 * p + c] = Math.min(255, data[3 * p + c]! * fold + [30, 26, 12][c]!);
    }
    const draw = (cx: number, cy: number, r: number): void => {
      for (let y = cy - r; y <= cy + r; y++)
        for (let x = cx - r; x <= cx + r; x++) {
          if (Math.hypot(x - cx, y - cy) > r) continue;
          const shade = 0.8 + 0.35 * Math.sin(x / 38);
          scene.lay(x, y, [60 * shade, 66 * shade, 124 * shade]);
        }
    };
    for (let k = 0; k < 10; k++) {
      const angle = (k * Math.PI) / 5;
      draw(200 + Math.round(30 * Math.cos(angle)), 150 + Math.round(30 * Math.sin(angle)), 6);
    }
    draw(200, 150, 12);
    const mark = markAt(scene.picture, [200, 150])!;
    expect(mark.pieces).toBeGreaterThanOrEqual(8);
    const mask = new Uint8Array(400 * 300);
    for (const p of mark.pixels) mask[p] = 1;
    const { precision, recall } = agreement(mask, scene.damage, 400);
    expect(precision).toBeGreaterThan(0.9);
    expect(recall).toBeGreaterThan(0.85);
  });

  test('plain ground has no mark', () => {
    expect(markAt(new Scene(200, 160, 3).picture, [100, 80])).toBeNull();
  });

  test('outside the picture there is none', () => {
    expect(markAt(new Scene(60, 60, 3).picture, [-5, 80])).toBeNull();
  });
});
