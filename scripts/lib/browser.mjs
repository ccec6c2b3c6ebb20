/** Debian's Chromium without the parts of a window around the page, which cost a third of a test's time. */
export const CHROMIUM = {
  executablePath: '/usr/bin/chromium-headless-shell',
  args: ['--no-sandbox', '--disable-background-networking'],
};
