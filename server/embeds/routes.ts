import { Router } from 'express';
import type { Target } from '#api/targets.ts';
import { chooseForm } from '#core/embed/forms.ts';
import { entryById, type Hosts, trustOf } from '#core/embed/host.ts';
import type { ReadEmbed } from '#core/embed/reading.ts';
import { writeEmbed } from '#core/embed/write.ts';
import { folderPath } from '#core/naming/folders.ts';
import { clientGoneSignal, withClientAbort } from '../client-abort.ts';
import type { Context } from '../context.ts';
import { farPreview } from '../gather/preview.ts';
import { versionOf } from '../if-match.ts';
import { allowed, personOf } from '../people/guard.ts';
import { notFound } from '../problem.ts';
import { route } from '../route.ts';
import { readTarget, readTargets } from '../rules/store.ts';
import { presentAsset } from '../shelf/present.ts';
import { decide, readHosts, saveEntries, undecide } from './hosts.ts';
import { keepEmbed } from './keep.ts';
import { lookAt } from './look.ts';
import { previewAddress } from './preview.ts';
import { searchFilms } from './search.ts';

/** Reading what was pasted, asking the other site, and the hosts that the house trusts. */
export function embedRoutes(context: Context): Router {
  const router = Router();
  const mayEmbed = allowed('edit-pages');

  route(router, 'get /embeds/hosts', async (_request, response) => {
    response.json(await readHosts(context));
  });

  route(router, 'put /embeds/hosts', allowed('set-rules'), async (request, response) => {
    const { entries } = request.body;
    response.json(await saveEntries(context, versionOf(request), entries, personOf(request), new Date()));
  });

  route(router, 'post /embeds/decisions', allowed('set-rules'), async (request, response) => {
    const wish = request.body;
    response.status(201).json(await decide(context, wish, personOf(request), new Date()));
  });

  route(router, 'delete /embeds/decisions', allowed('set-rules'), async (request, response) => {
    const which = request.body;
    response.json(await undecide(context, which, personOf(request), new Date()));
  });

  route(router, 'post /embeds/looks', mayEmbed, async (request, response) => {
    const { embed } = request.body;
    const [hosts, targets] = await Promise.all([readHosts(context), readTargets(context)]);
    const look = await withClientAbort(context, request, response, (signal) =>
      lookAt(context, { embed, hosts, targets }, signal),
    );
    // It is about to be looked at; where it cannot be had, that is said when it is asked for.
    const { thumbnail } = look.embed.facts;
    if (thumbnail) void farPreview(context, { address: thumbnail, page: embed.page }).catch(() => undefined);
    response.json(look);
  });

  route(router, 'post /embeds', mayEmbed, async (request, response) => {
    const { embed, folder } = request.body;
    const who = { folder: folderPath(folder), person: personOf(request), now: new Date() };
    const { row, isNew } = await withClientAbort(context, request, response, (signal) =>
      keepEmbed(context, embed, who, signal),
    );
    const asset = await presentAsset(context, row, personOf(request));
    const sentence = isNew
      ? `${row.title || row.stem} is on the shelf.`
      : `It was on the shelf already, as ${row.title || row.stem}.`;
    response.status(isNew ? 201 : 200).json({ asset, isNew, sentence });
  });

  route(router, 'get /embeds/films', mayEmbed, async (request, response) => {
    const { host, words } = request.query;
    const entry = entryById(host, await readHosts(context));
    if (!entry) throw notFound('This host');
    const films = await withClientAbort(context, request, response, (signal) =>
      searchFilms(context, entry, words, signal),
    );
    response.json({ films });
  });

  route(router, 'post /embeds/previews', mayEmbed, async (request, response) => {
    const shown = request.body;
    response.json({ address: previewAddress(context, shown) });
  });

  route(router, 'post /embeds/readings', mayEmbed, async (request, response) => {
    const { text, target: targetId } = request.body;
    const [hosts, target] = await Promise.all([readHosts(context), readTarget(context, targetId)]);
    const { embeds, marks, refusals } = await context.texts.pasted(text, hosts, clientGoneSignal(response));
    const things = await withClientAbort(context, request, response, (signal) =>
      Promise.all(embeds.map((read) => writtenFor(context, read, target, hosts, signal))),
    );
    const leftOut = marks
      .filter(({ as }) => as === 'dropped')
      .map(({ from, to, why }) => ({ text: text.slice(from, to), why }));
    response.json({ things, leftOut, refusals });
  });
  return router;
}

/** A thing that was read, with what its host says, and the code that goes out for a target. */
async function writtenFor(
  context: Context,
  read: ReadEmbed,
  target: Target,
  hosts: Hosts,
  signal: AbortSignal,
) {
  const look = await lookAt(context, { embed: read.embed, hosts, targets: [target] }, signal);
  const { embed } = look;
  const framing = look.framing[0]?.framing ?? null;
  const form = chooseForm({ embed, target: target.rules, hosts, framing, hasPoster: false });
  return {
    ...read,
    embed,
    trust: trustOf(embed.address, hosts),
    notes: [...read.notes, ...look.notes],
    framing,
    form,
    code: writeEmbed(form, { embed, target: target.rules, hosts, poster: null }),
  };
}
