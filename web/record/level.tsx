import { useEffect, useRef } from 'react';

/** How loud it is now, drawn as a line that grows: whoever records sees that they are heard. */
export function Level({ stream }: { readonly stream: MediaStream }) {
  const bar = useRef<HTMLSpanElement>(null);
  useEffect(() => {
    if (stream.getAudioTracks().length === 0) return;
    const context = new AudioContext();
    const analyser = context.createAnalyser();
    analyser.fftSize = 1024;
    context.createMediaStreamSource(stream).connect(analyser);
    const samples = new Float32Array(analyser.fftSize);
    let frame = 0;
    const draw = () => {
      analyser.getFloatTimeDomainData(samples);
      const power = samples.reduce((sum, sample) => sum + sample * sample, 0) / samples.length;
      const decibels = power > 0 ? 10 * Math.log10(power) : FLOOR;
      const part = Math.min(1, Math.max(0, 1 - decibels / FLOOR));
      if (bar.current) bar.current.style.transform = `scaleX(${part})`;
      frame = requestAnimationFrame(draw);
    };
    draw();
    return () => {
      cancelAnimationFrame(frame);
      void context.close();
    };
  }, [stream]);
  if (stream.getAudioTracks().length === 0) return <p className="text-due">Without sound.</p>;
  return (
    <div className="h-1.5 w-full bg-hairline" role="img" aria-label="How loud it is">
      <span ref={bar} className="block h-full origin-left bg-action" style={{ transform: 'scaleX(0)' }} />
    </div>
  );
}

/** Under full loudness, in dB: quieter is nothing. */
const FLOOR = -60;
