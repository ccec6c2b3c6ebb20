import { needsLook, type RunWarning, sayRunWarning, warningPlace } from '#core/run/warning.ts';

/** What a person should know of one part of a row. */
export function Warnings({
  warnings,
  place,
}: {
  readonly warnings: readonly RunWarning[];
  readonly place: 'name' | 'sizes';
}) {
  return (
    <>
      {warnings
        .filter((warning) => warningPlace(warning) === place)
        .map((warning) => (
          <span
            key={warning.code}
            className={
              needsLook(warning) ? 'block text-sm leading-4 text-due' : 'block text-sm leading-4 text-soft'
            }
          >
            {sayRunWarning(warning)}
          </span>
        ))}
    </>
  );
}
