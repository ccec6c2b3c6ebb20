import { bittern, flock, heron, hide, person, sluice } from './figures.ts';
import { boardwalk, type Canvas, clouds, hills, reeds, sky, sun, water } from './landscape.ts';
import { type Light, PALETTES } from './palette.ts';
import { seeded } from './random.ts';

const SUBJECTS = [
  'marsh',
  'heron',
  'bittern',
  'boardwalk',
  'hide',
  'cutters',
  'walkers',
  'watcher',
  'flock',
  'sluice',
  'channel',
  'reeds',
] as const;
export type Subject = (typeof SUBJECTS)[number];

const WIDTH = 1000;

/** Paints a scene as SVG, 1000 units wide and as high as `aspect` (width by height) asks. */
export function paintScene(subject: Subject, light: Light, seed: number, aspect: number): string {
  const height = Math.round(WIDTH / aspect);
  const random = seeded(seed);
  const horizon = height * random.between(0.4, 0.5);
  const canvas: Canvas = { width: WIDTH, height, horizon, palette: PALETTES[light], random };
  const sunX = random.between(280, 760);
  const sunY = horizon - random.between(0.1, 0.5) * horizon;
  const ground = [
    sky(canvas),
    sun(canvas, sunX, sunY, 26),
    clouds(canvas, 9),
    hills(canvas),
    water(canvas, sunX),
  ];
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${WIDTH} ${height}" width="${WIDTH}" height="${height}">${[...ground, ...subjectOf(subject, canvas)].join('')}</svg>`;
}

function subjectOf(subject: Subject, canvas: Canvas): readonly string[] {
  const { width, height, horizon, random } = canvas;
  const near = height - (height - horizon) * 0.18;
  const tall = Math.min(height * 0.52, 380);
  switch (subject) {
    case 'marsh':
      return [reeds(canvas, 420)];
    case 'reeds':
      return [reeds(canvas, 900)];
    case 'channel':
      return [reeds(canvas, 380, { from: 300, to: 700 }), flock(canvas, 620, horizon * 0.5, 7, 60)];
    case 'heron':
      return [reeds(canvas, 330, { from: 330, to: 560 }), heron(canvas, 430, near, tall)];
    case 'bittern':
      return [
        reeds(canvas, 260, { from: 420, to: 640 }),
        bittern(canvas, 530, near, tall * 0.9, random.next() < 0.5),
        reeds(canvas, 90),
      ];
    case 'boardwalk':
      return [
        reeds(canvas, 300),
        boardwalk(canvas, random.between(460, 600), random.between(380, 520)),
        reeds(canvas, 70, { from: 150, to: 850 }),
      ];
    case 'hide':
      return [
        reeds(canvas, 260),
        hide(canvas, 640, horizon + (height - horizon) * 0.5, tall * 0.8),
        reeds(canvas, 160),
      ];
    case 'cutters':
      return [
        reeds(canvas, 240),
        person(canvas, 330, near, tall * 0.8, 'reeds'),
        person(canvas, 520, near - 26, tall * 0.68, 'nothing', true),
        person(canvas, 700, near + 8, tall * 0.84, 'reeds', true),
        reeds(canvas, 60),
      ];
    case 'walkers':
      return [
        reeds(canvas, 300),
        boardwalk(canvas, 540, 480),
        person(canvas, 520, near - 60, tall * 0.52),
        person(canvas, 586, near - 70, tall * 0.48, 'nothing', true),
        reeds(canvas, 60, { from: 200, to: 800 }),
      ];
    case 'watcher':
      return [reeds(canvas, 240), person(canvas, 480, near + 20, tall * 1.15, 'glass'), reeds(canvas, 80)];
    case 'flock':
      return [flock(canvas, width * 0.55, horizon * 0.55, 46, 300), reeds(canvas, 260)];
    case 'sluice':
      return [sluice(canvas), reeds(canvas, 90, { from: 160, to: 860 })];
  }
}
