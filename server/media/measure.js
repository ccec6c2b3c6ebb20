// Tells the proof how high the page is and where each block stands, so that its marks can be put beside them.
// Part of the preview only; it is never in what goes out.
(() => {
  // How far what stands there jumps while it loads (Layout Instability API, W3C draft), summed up.
  let shift = 0;
  if (window.PerformanceObserver?.supportedEntryTypes.includes('layout-shift'))
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries()) if (!entry.hadRecentInput) shift += entry.value;
      if (document.body) tell();
    }).observe({ type: 'layout-shift', buffered: true });
  // When the first words could be read (Paint Timing, W3C draft), and when each picture had come.
  let painted = null;
  const loads = [];
  if (window.PerformanceObserver?.supportedEntryTypes.includes('paint'))
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        if (entry.name === 'first-contentful-paint') painted = entry.startTime;
      if (document.body) tell();
    }).observe({ type: 'paint', buffered: true });
  // Heard at the document: what an element tells of its loading does not come up to the window (WHATWG DOM, 2.8).
  document.addEventListener(
    'load',
    ({ target }) => {
      const block = target instanceof HTMLImageElement ? target.closest('[data-block]') : null;
      if (!block) return;
      const [entry] = performance.getEntriesByName(target.currentSrc);
      loads.push({
        block: block.dataset.block,
        at: entry?.responseEnd || performance.now(),
        bytes: entry?.encodedBodySize ?? 0,
      });
      tell();
    },
    true,
  );
  const tell = () => {
    const blocks = [...document.querySelectorAll('[data-block]')].map((block) => {
      const box = block.getBoundingClientRect();
      return {
        id: block.dataset.block,
        top: box.top + scrollY,
        left: box.left,
        width: box.width,
        height: box.height,
      };
    });
    const overflow = document.documentElement.scrollWidth - document.documentElement.clientWidth;
    parent.postMessage(
      {
        kind: 'placard-measure',
        width: innerWidth,
        height: document.body.scrollHeight,
        blocks,
        overflow,
        shift,
        painted,
        loads,
      },
      '*',
    );
  };
  addEventListener('load', tell);
  addEventListener('DOMContentLoaded', () => {
    new ResizeObserver(tell).observe(document.body);
    document.fonts.ready.then(tell);
  });
  addEventListener('click', (event) => {
    if (event.target instanceof Element && event.target.closest('a')) event.preventDefault();
  });
})();
