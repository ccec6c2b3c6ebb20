import { Field } from '../ui/field.tsx';
import { NumberField } from './number-field.tsx';
import type { RulesPart } from './rules-part.ts';

const KILO = 1000;

/** What the site is, and what its pictures may weigh. */
export function UseCard({ rules, change }: RulesPart) {
  return (
    <section className="card" aria-labelledby="rules-use">
      <h2 id="rules-use">Site and files</h2>
      <p className="soft">
        {rules.commercial
          ? 'A commercial site: licences that forbid commercial use stop sending.'
          : 'Not a commercial site.'}
      </p>
      <div className="rules-fields" style={{ gridTemplateColumns: '1fr 1fr' }}>
        <Field name="Name">
          {(control) => (
            <input
              {...control}
              className="input"
              value={rules.name}
              onChange={(event) => change({ name: event.target.value })}
            />
          )}
        </Field>
        <Field name="Address">
          {(control) => (
            <input
              {...control}
              className="input"
              value={rules.siteAddress}
              onChange={(event) => change({ siteAddress: event.target.value })}
            />
          )}
        </Field>
        <Field name="Language">
          {(control) => (
            <input
              {...control}
              className="input mono"
              value={rules.language}
              onChange={(event) => change({ language: event.target.value })}
            />
          )}
        </Field>
        <NumberField
          name="First load at most (kB)"
          value={Math.round(rules.weightBudget / KILO)}
          onChange={(kilobytes) => change({ weightBudget: kilobytes * KILO })}
        />
      </div>
      <div style={{ display: 'grid', gap: 6, margin: '12px 0' }}>
        <label className="check">
          <input
            type="checkbox"
            checked={rules.commercial}
            onChange={(event) => change({ commercial: event.target.checked })}
          />{' '}
          It is a commercial site
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={rules.creditOwnWork}
            onChange={(event) => change({ creditOwnWork: event.target.checked })}
          />{' '}
          Our own work is credited too
        </label>
        <label className="check">
          <input
            type="checkbox"
            checked={rules.wordsOver === 'drawn'}
            onChange={(event) => change({ wordsOver: event.target.checked ? 'drawn' : 'text' })}
          />{' '}
          Words over a picture are drawn into the file: the site keeps no text there
        </label>
      </div>
      <div className="rules-fields">
        {(['avif', 'webp', 'jpeg'] as const).map((format) => (
          <NumberField
            key={format}
            name={`${{ avif: 'AVIF', webp: 'WebP', jpeg: 'JPEG' }[format]} quality`}
            value={rules.quality[format]}
            onChange={(quality) => change({ quality: { ...rules.quality, [format]: quality } })}
          />
        ))}
        <NumberField
          name="Likeness, of 1000"
          hint="How alike the smallest file has to look, 900 to 999."
          value={rules.likeness}
          onChange={(likeness) => change({ likeness })}
        />
      </div>
    </section>
  );
}
