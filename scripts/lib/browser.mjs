/** Debian's Chromium without the parts of a window around the page, which cost a third of a test's time. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium-headless-shell',
  // Without hinting letters stand where the face has them, as on the screens that people have.
  args: ['--no-sandbox', '--disable-background-networking', '--font-render-hinting=none'],
};
