import { fileNameOf } from './file-name.js';

const facts = {
  job: 'Nettle Steps / leaflet',
  picture: 'Lane: with wires.jpg',
  date: '2026-11-02',
};

describe('file names', () => {
  test('put job, picture and date in and drop the old extension', () => {
    expect(fileNameOf('{job}-{picture}-{date}', facts, 'png')).toBe(
      'Nettle-Steps-leaflet-Lane-with-wires-2026-11-02.png',
    );
    expect(fileNameOf('{picture}', facts, 'tiff')).toBe('Lane-with-wires.tif');
  });

  test('are never empty, never climb folders, and keep letters of any script', () => {
    expect(fileNameOf('///', facts, 'jpeg')).toBe('picture.jpg');
    expect(fileNameOf('../../{date}', facts, 'webp')).toBe('2026-11-02.webp');
    expect(fileNameOf('{job}', { ...facts, job: 'Ærø Hafen Größe' }, 'png')).toBe(
      'Ærø-Hafen-Größe.png',
    );
  });
});
