import { keepPreviousData, queryOptions, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import type { Asset } from '#api/assets.ts';
import { FIGURE_POSITIONS, FigureSchema, type FigureWish } from '#api/figures.ts';
import { addressOf, requestJson, requestVoid, sayFailure } from '../api/client.ts';
import { targetsQuery } from '../api/queries.ts';
import { PositionDrawing } from '../label/position-drawing.tsx';
import { Button, buttonLook } from '../ui/button.tsx';
import { OneOf } from '../ui/chips.tsx';
import { copyRich, copyText } from '../ui/copy.ts';
import { Deeds } from '../ui/deeds.tsx';
import { Fault } from '../ui/fault.tsx';
import { Field } from '../ui/field.tsx';
import { Input, TextArea } from '../ui/input.tsx';
import { Panel } from '../ui/panel.tsx';
import { Select } from '../ui/select.tsx';
import { toast } from '../ui/toast.ts';

const POSITION_NAMES: Readonly<Record<(typeof FIGURE_POSITIONS)[number], string>> = {
  'beside-left': 'beside left',
  'beside-right': 'beside right',
  centred: 'centred',
  column: 'column',
};

const figureQuery = (id: string, version: number, wish: FigureWish) =>
  queryOptions({
    queryKey: ['figure', id, version, wish],
    queryFn: ({ signal }) =>
      requestJson('get /assets/{id}/figure', FigureSchema, { path: { id }, query: wish, signal }),
    placeholderData: keepPreviousData,
    retry: false,
    gcTime: 0,
  });

interface FigurePanelProps {
  readonly asset: Asset;
  readonly onClose: () => void;
}

/** One piece for use elsewhere: as code or as rich text with its credit, in an arrangement of the sheet, without a page. */
export function FigurePanel({ asset, onClose }: FigurePanelProps) {
  const targets = useQuery(targetsQuery).data ?? [];
  const [chosen, setChosen] = useState<string | null>(null);
  const [position, setPosition] = useState<(typeof FIGURE_POSITIONS)[number]>('beside-left');
  const [files, setFiles] = useState('');
  const target = chosen ?? targets[0]?.id ?? '';
  const wish = { target, position, ...(files.trim() ? { files: files.trim() } : {}) };
  const asked = useQuery({ ...figureQuery(asset.id, asset.version, wish), enabled: target !== '' });
  const figure = asked.error ? undefined : asked.data;
  const title = asset.label.title || asset.stem;
  const tellCopied = async (copying: Promise<boolean>, as: 'code' | 'picture') => {
    if (!(await copying)) return;
    // It is copied all the same where the log cannot be told.
    await requestVoid('post /assets/{id}/figure/copied', {
      path: { id: asset.id },
      body: { ...wish, as },
    }).catch((error: unknown) => toast.error(sayFailure(error)));
  };
  return (
    <Panel
      title={`${title}, for use elsewhere`}
      about="Its figure with alt text, caption and credit, as it would stand on a page."
      isOpen
      onClose={onClose}
    >
      <div className="mt-3 grid gap-3">
        <div className="flex flex-wrap items-end gap-3">
          <Field name="By the rules of">
            {(control) => (
              <Select
                {...control}
                value={target}
                choices={targets.map(({ id, rules }) => [id, rules.name] as const)}
                onChoose={setChosen}
              />
            )}
          </Field>
          <OneOf
            about="Position"
            value={position}
            choices={FIGURE_POSITIONS.map((one) => [
              one,
              <span key={one} className="flex items-center gap-1.5">
                <PositionDrawing position={one} /> {POSITION_NAMES[one]}
              </span>,
            ])}
            onChoose={setPosition}
          />
        </div>
        <Fault says={asked.error ? sayFailure(asked.error) : null} />
        {figure ? (
          <>
            <Deeds>
              <Button
                kind="action"
                onClick={() =>
                  void tellCopied(
                    copyRich(figure.rich, figure.credit, `${title} is copied, with its picture.`),
                    'picture',
                  )
                }
              >
                Copy with picture and credit
              </Button>
              <Button onClick={() => void tellCopied(copyText(figure.html, 'The code is'), 'code')}>
                Copy the code
              </Button>
              <a
                className={buttonLook()}
                href={addressOf('get /assets/{id}/figure.zip', { path: { id: asset.id }, query: wish })}
                download
              >
                Its files as a ZIP
              </a>
              <a
                className={buttonLook()}
                href={addressOf('get /assets/{id}/label.xmp', { path: { id: asset.id }, query: wish })}
                download
              >
                Its label as XMP
              </a>
            </Deeds>
            <Field
              name="Where its files will live"
              hint="The folder that the files of the ZIP are put in. Without one the code asks for media/ beside the page."
            >
              {(control) => (
                <Input
                  {...control}
                  className="font-mono text-mono"
                  value={files}
                  onChange={(event) => setFiles(event.target.value)}
                />
              )}
            </Field>
            <TextArea
              className="max-h-40 overflow-auto bg-ground p-2.5 font-mono text-xs leading-normal font-normal wrap-anywhere whitespace-pre-wrap"
              readOnly
              rows={7}
              aria-label="The code of the figure"
              value={figure.html}
            />
            {figure.credit ? (
              <div>
                <p>{figure.credit}</p>
                <Deeds>
                  <Button kind="link" onClick={() => void copyText(figure.credit, 'The credit is')}>
                    Copy the credit
                  </Button>
                  <Button kind="link" onClick={() => void copyText(figure.markdown, 'The credit is')}>
                    Copy it as Markdown
                  </Button>
                </Deeds>
              </div>
            ) : (
              <p className="text-soft">No credit is owed.</p>
            )}
          </>
        ) : null}
      </div>
    </Panel>
  );
}
