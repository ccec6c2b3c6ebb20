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
          <span key={warning.code} className={needsLook(warning) ? 'run-says due' : 'run-says soft'}>
            {sayRunWarning(warning)}
          </span>
        ))}
    </>
  );
}
