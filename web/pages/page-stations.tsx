import type { PageSummary } from '#api/pages.ts';
import { cx } from '../ui/cx.ts';

/** How far a page is at each station, as five small measures. */
export function PageStations({
  page,
  className,
}: {
  readonly page: PageSummary;
  readonly className?: string;
}) {
  return (
    <div className={cx('flex gap-0.75', className)}>
      {page.stations.map(({ id, name, done, of }) => (
        <span
          key={id}
          className="relative grid h-5.25 w-12 place-items-center overflow-hidden bg-panel font-mono text-xs font-normal data-[done=true]:bg-action data-[done=true]:text-action-ink"
          data-done={of > 0 && done === of}
          role="img"
          aria-label={`${name} ${done} of ${of}`}
        >
          <i
            className="absolute inset-y-0 left-0 bg-action-soft"
            style={{ width: of > 0 && done < of ? `${(done / of) * 100}%` : 0 }}
          />
          <b className="relative font-medium" aria-hidden="true">
            {of > 0 && done === of ? of : `${done}/${of}`}
          </b>
        </span>
      ))}
    </div>
  );
}
