// Draws the areas of the code with their folders, and how often each area imports from each other, into
// docs/architecture.svg: `npm run draw`, and `npm test` says when the drawing is no longer what the code is.
import { readFileSync, writeFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import { filesIn, isOwn, namedIn, targetOf } from './lib/imports.mjs';
import { root } from './lib/machine.mjs';

/** The areas by their place in the drawing: column, row, and how many columns wide. */
const PLACES = {
  web: [0, 0, 2],
  server: [2, 0, 2],
  api: [1, 1, 2],
  core: [0, 2, 4],
};
const ABOUT = {
  web: 'what people work in (React)',
  server: 'routes, queries, files, jobs (Express, Drizzle)',
  api: 'the contract of both: a schema for each request and answer',
  core: 'what Placard knows: pure computation',
};
const [COLUMN, GAP, PAD, LINE, CHIP] = [236, 26, 14, 24, 92];
const isTest = (name) => /\.test\.tsx?$|(^|\/)(testing|mounted)\.tsx?$/.test(name);

const counts = new Map();
const folders = new Map();
for (const area of Object.keys(PLACES)) {
  for (const file of filesIn(join(root, area))) {
    const name = relative(root, file);
    if (isTest(name)) continue;
    const [, folder, rest] = name.split('/');
    if (rest) folders.set(area, (folders.get(area) ?? new Set()).add(folder));
    for (const from of namedIn(file).filter(isOwn)) {
      const to = targetOf(file, from).split('/')[0];
      if (to !== area && to in PLACES) counts.set(`${area} ${to}`, (counts.get(`${area} ${to}`) ?? 0) + 1);
    }
  }
}

const boxes = new Map();
let top = GAP;
for (const row of [0, 1, 2]) {
  const here = Object.entries(PLACES).filter(([, [, at]]) => at === row);
  const heights = here.map(([area, [column, , wide]]) => {
    const width = wide * COLUMN + (wide - 1) * GAP;
    const inRow = Math.floor((width - 2 * PAD) / CHIP);
    const rows = Math.ceil((folders.get(area)?.size ?? 0) / inRow);
    const height = 52 + rows * LINE + (rows > 0 ? PAD : 0);
    boxes.set(area, { x: GAP + column * (COLUMN + GAP), y: top, width, height, inRow });
    return height;
  });
  top += Math.max(...heights) + 64;
}
const [width, height] = [4 * COLUMN + 5 * GAP, top - 64 + GAP];

const parts = [...boxes].map(([area, { x, y, width: w, height: h, inRow }]) => {
  const chips = [...(folders.get(area) ?? [])].sort().map((folder, at) => {
    const [cx, cy] = [x + PAD + (at % inRow) * CHIP, y + 68 + Math.floor(at / inRow) * LINE];
    return `<text x="${cx}" y="${cy}" class="folder">${folder}</text>`;
  });
  return `<rect x="${x}" y="${y}" width="${w}" height="${h}" rx="3"/><text x="${x + PAD}" y="${y + 25}" class="area">${area}</text><text x="${x + PAD}" y="${y + 43}" class="about">${ABOUT[area]}</text>${chips.join('')}`;
});
const arrows = [...counts].sort().map(([pair, count]) => {
  const [from, to] = pair.split(' ').map((name) => ({ name, ...boxes.get(name) }));
  // Past the contract an arrow goes at the side on which its area stands.
  const isPast = from.name !== 'api' && to.name === 'core';
  const x = isPast
    ? from.name === 'web'
      ? from.x + COLUMN / 2
      : from.x + from.width - COLUMN / 2
    : from.name === 'web'
      ? to.x + COLUMN / 2
      : from.name === 'server'
        ? to.x + to.width - COLUMN / 2
        : from.x + from.width / 2;
  const [y1, y2] = [from.y + from.height, to.y - 4];
  return `<path d="M${x} ${y1}V${y2}" marker-end="url(#head)"/><text x="${x + 8}" y="${y1 + 36}" class="count">${count} imports</text>`;
});
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}" role="img" aria-label="Areas of the code and their imports: web and server know api and core, api knows core, core knows none of them">
<style>svg{background:#e9edec}rect{fill:#fff;stroke:#172126;stroke-width:1.5}path{stroke:#172126;stroke-width:1.5;fill:none}text{font-family:sans-serif;fill:#172126}.area{font-size:17px;font-weight:700}.about{font-size:12px;fill:#51626a}.folder{font-size:13px}.count{font-size:12px;fill:#51626a}</style>
<defs><marker id="head" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="8" markerHeight="8" orient="auto"><path d="M0 0L8 4L0 8"/></marker></defs>
${[...parts, ...arrows].join('\n')}
</svg>
`;

const path = join(root, 'docs', 'architecture.svg');
if (process.argv.includes('--check')) {
  // How often is left out of the comparison: it changes with every second line.
  const bare = (text) => text.replace(/\d+ imports/g, '');
  if (bare(readFileSync(path, 'utf8')) !== bare(drawing)) {
    process.stderr.write('docs/architecture.svg is not what the code is any more: npm run draw.\n');
    process.exit(1);
  }
} else writeFileSync(path, drawing);
