// Tells the proof how high the page is and where each figure stands, so that its marks can be put beside them.
// Part of the preview only; it is never in what goes out.
(() => {
  const tell = () => {
    const figures = [...document.querySelectorAll('.placed')].map((figure) => {
      const box = figure.getBoundingClientRect();
      return { top: box.top + scrollY, left: box.left, width: box.width, height: box.height };
    });
    const blocks = [...document.querySelectorAll('.placard-column > *')].map(
      (block) => block.getBoundingClientRect().top + scrollY,
    );
    const overflow = document.documentElement.scrollWidth - document.documentElement.clientWidth;
    parent.postMessage(
      {
        kind: 'placard-measure',
        width: innerWidth,
        height: document.body.scrollHeight,
        figures,
        blocks,
        overflow,
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
