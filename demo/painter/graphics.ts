import { seeded } from './random.ts';

const n = (value: number) => value.toFixed(1);

/** Eels counted by month: a chart that needs a long description. */
export function paintChart(): string {
  const counts = [12, 18, 44, 130, 310, 420, 365, 210, 160, 70, 24, 9];
  const months = 'JFMAMJJASOND';
  const bars = counts.map((count, at) => {
    const tall = count * 1.1;
    return `<rect x="${110 + at * 70}" y="${n(560 - tall)}" width="46" height="${n(tall)}" fill="#0f5c4d"/><text x="${133 + at * 70}" y="592" text-anchor="middle">${months[at]}</text>`;
  });
  const lines = [0, 100, 200, 300, 400].map(
    (count) =>
      `<path d="M90 ${560 - count * 1.1}H960" stroke="#c6cfd2"/><text x="78" y="${566 - count * 1.1}" text-anchor="end">${count}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 640" width="1000" height="640"><rect width="1000" height="640" fill="#fff"/><g font-family="DejaVu Sans, sans-serif" font-size="18" fill="#172126"><text x="60" y="54" font-size="26" font-weight="bold">Eels counted at the pass, by month</text>${lines.join('')}${bars.join('')}</g></svg>`;
}

/** A map of the marsh: channels, boardwalk, numbered hides. */
export function paintMap(): string {
  const random = seeded(71);
  const tufts = Array.from({ length: 380 }, () => {
    const [x, y] = [random.between(20, 980), random.between(20, 680)];
    return `M${n(x)} ${n(y)}l-4 -9M${n(x)} ${n(y)}l0 -11M${n(x)} ${n(y)}l4 -9`;
  });
  const hides = [
    [260, 210],
    [470, 390],
    [690, 260],
    [820, 520],
  ].map(
    ([x, y], at) =>
      `<circle cx="${x}" cy="${y}" r="17" fill="#bf360c"/><text x="${x}" y="${(y ?? 0) + 7}" text-anchor="middle" fill="#fff" font-weight="bold">${at + 1}</text>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 1000 700" width="1000" height="700"><rect width="1000" height="700" fill="#dfe8d2"/><path d="${tufts.join('')}" stroke="#8ea374" fill="none"/><path d="M-20 330C180 240 260 460 430 350S700 420 820 330S960 300 1040 340" stroke="#8fbfd0" stroke-width="58" fill="none"/><path d="M430 350C420 500 520 560 500 720" stroke="#8fbfd0" stroke-width="34" fill="none"/><path d="M120 90L260 210L470 390L690 260L820 520L900 640" stroke="#6b4f33" stroke-width="7" stroke-dasharray="16 7" fill="none"/><g font-family="DejaVu Sans, sans-serif" font-size="20">${hides.join('')}<text x="60" y="70" font-size="28" font-weight="bold" fill="#172126">Saltmere Marsh: hides and boardwalk</text></g></svg>`;
}

/** The reserve's mark: a reed head and two waves. `stroke` in any CSS colour; no ground. */
export function paintMark(stroke: string): string {
  return `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 600 600" width="600" height="600"><g fill="none" stroke="${stroke}" stroke-width="26" stroke-linecap="round"><path d="M300 90V430M230 200C230 300 300 330 300 400M370 160C370 280 300 310 300 380"/><path d="M110 470q47 -40 95 0t95 0t95 0t95 0M150 530q37 -32 75 0t75 0t75 0t75 0"/></g><ellipse cx="300" cy="120" rx="24" ry="62" fill="${stroke}"/></svg>`;
}
