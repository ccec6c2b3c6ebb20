/** The light of a painting: sky from top to horizon, hills from far to near, water, reeds and the sun. */
export interface Palette {
  readonly sky: readonly [string, string, string];
  readonly cloud: string;
  readonly sun: string;
  readonly glow: string;
  readonly hills: readonly [string, string, string];
  readonly water: readonly [string, string];
  readonly glint: string;
  readonly reeds: readonly [string, string, string];
  readonly head: string;
  readonly plank: readonly [string, string];
  readonly figure: string;
}

export const PALETTES = {
  dawn: {
    sky: ['#5d7fa3', '#e8b487', '#f7dba7'],
    cloud: '#f3ddc6',
    sun: '#fff6dc',
    glow: '#ffcf6e',
    hills: ['#9aa3b4', '#77839a', '#556157'],
    water: ['#ecd2a4', '#6d7f86'],
    glint: '#fff1d0',
    reeds: ['#8f8150', '#6d6a3c', '#454a2d'],
    head: '#6b4a2b',
    plank: ['#9a7a55', '#6b5138'],
    figure: '#2c3640',
  },
  noon: {
    sky: ['#4f9bd0', '#9cc8e2', '#dcecee'],
    cloud: '#ffffff',
    sun: '#fffbe4',
    glow: '#fff1b8',
    hills: ['#9cc0a8', '#6c9d6f', '#3f7448'],
    water: ['#cfe6e4', '#4f8f9f'],
    glint: '#ffffff',
    reeds: ['#7fa05a', '#55803f', '#345c34'],
    head: '#6e4b30',
    plank: ['#a37c50', '#71502f'],
    figure: '#27343c',
  },
  dusk: {
    sky: ['#33295c', '#a54f78', '#f79a5a'],
    cloud: '#c97a8b',
    sun: '#ffd98a',
    glow: '#ff8d4a',
    hills: ['#5b3f6b', '#41305a', '#2b2344'],
    water: ['#f0935c', '#3d2f55'],
    glint: '#ffd59c',
    reeds: ['#5c4235', '#40322f', '#241f27'],
    head: '#2d1d1c',
    plank: ['#6d4a45', '#3d2a33'],
    figure: '#191724',
  },
  mist: {
    sky: ['#a9b8bb', '#cbd4d3', '#e6e9e5'],
    cloud: '#eef1ef',
    sun: '#fcfcf6',
    glow: '#f7f5e6',
    hills: ['#bcc6c5', '#a1adab', '#87958f'],
    water: ['#dfe5e2', '#a3b1af'],
    glint: '#f7faf8',
    reeds: ['#9a9d80', '#7b8068', '#585f50'],
    head: '#5e5243',
    plank: ['#8f8676', '#665f54'],
    figure: '#3b454b',
  },
} as const satisfies Record<string, Palette>;

export type Light = keyof typeof PALETTES;
