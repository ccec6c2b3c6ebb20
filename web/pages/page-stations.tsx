import '../desk/desk.css';
import type { PageSummary } from '#api/pages.ts';

/** How far a page is at each station, as five small measures. */
export function PageStations({ page }: { readonly page: PageSummary }) {
  return (
    <div className="stations-small">
      {page.stations.map(({ id, name, done, of }) => (
        <span
          key={id}
          className="station-small"
          data-done={of > 0 && done === of}
          role="img"
          aria-label={`${name} ${done} of ${of}`}
        >
          <i style={{ width: of > 0 && done < of ? `${(done / of) * 100}%` : 0 }} />
          <b aria-hidden="true">{of > 0 && done === of ? of : `${done}/${of}`}</b>
        </span>
      ))}
    </div>
  );
}
