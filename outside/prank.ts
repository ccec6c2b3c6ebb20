/**
 * A page that tries everything a frame should not do: lead the page away, read it, write cookies, ask for the camera,
 * open windows and dialogs. What worked is told to whoever listens, and to the service.
 */
export function prankPage(origin: string): string {
  return `<!DOCTYPE html><html lang="en"><head><meta charset="utf-8"><title>Prank</title></head><body><p>This frame means no good.</p>
<script>
const worked = [];
const tryIt = (name, deed) => { try { if (deed() !== false) worked.push(name); } catch {} };
tryIt('read the page', () => { void parent.document.title; });
tryIt('lead the page away', () => { top.location.href = '${origin}/?led-away'; });
tryIt('open a window', () => window.open('${origin}/?opened') !== null);
tryIt('ask', () => { alert('Hello'); return false; });
tryIt('leave a cookie', () => { document.cookie = 'prank=1; SameSite=None; Secure'; return document.cookie.includes('prank'); });
const ask = navigator.mediaDevices ? navigator.mediaDevices.getUserMedia({ video: true }).then(() => worked.push('use the camera'), () => {}) : Promise.resolve();
ask.then(() => parent.postMessage({ prank: worked }, '*'));
</script></body></html>`;
}
