// One arrangement on a page of its own, to be looked at while it is built: as it is kept, or as it would be with other
// options, with the files that are there and sketches of those that are not.
import {
  arrangementIn,
  arrangementProblems,
  asOrdered,
  slotsOfArrangement,
  wholeOptions,
} from '@dusky-otter/core/arrange';
import type { Arrangement, WidthRule } from '@dusky-otter/core/contract';
import { cssLength } from '@dusky-otter/core/css';
import {
  arrangedMarkup,
  arrangementRules,
  isPoster,
  pagesOf,
  runtimeFor,
  SCRIPTS_OF,
} from '@dusky-otter/core/markup';
import { directionOf } from '@dusky-otter/core/html';
import { IsString, Matches, MaxLength } from 'class-validator';
import type { FastifyPluginAsync, FastifyRequest } from 'fastify';
import { runtimeFile } from '../handover/runtime.ts';
import { Named } from '../handover/named.ts';
import type { Parts } from '../parts.ts';
import { ProblemError } from '../problems.ts';
import { loadPhotos } from '../store/photos.ts';
import { entriesOf } from '../answers/entries.ts';
import { rowOf } from '../answers/sent.ts';
import { setPlacesIn } from '../store/sets.ts';
import { findSet } from '../store/sets.ts';

import { checked, idFrom } from './dto.ts';
import { ArrangedDto } from './place-dto.ts';
import { IfGiven } from './quality-dto.ts';

/** What these routes need of the server. */
type Needs = Pick<Parts, 'ledgers' | 'preparer' | 'sites'>;

/** Photos of an arrangement that are shown; the bench says when there are more. */
const MOST_SHOWN = 200;

const SCRIPTS = [...new Set(Object.values(SCRIPTS_OF).flat())];

type Asked = FastifyRequest<{
  Params: { id: string; slot: string };
  Querystring: { tried?: string; edition?: string; page?: string };
}>;

class ProofDto {
  /** Options that are tried, by the name that they were given. */
  @IfGiven() @Matches(/^[\w-]{8,64}$/) tried?: string;
  /** Which page of it, where it has several. */
  @IfGiven() @Matches(/^[1-9]\d{0,3}$/) page?: string;
  /** Makes another address of a state that is another one. */
  @IfGiven() @IsString() @MaxLength(100) edition?: string;
}

/** What the arrangement would be with other options. @throws ProblemError for what can't be built */
function triedAs(kept: Arrangement, { options, container, order }: ArrangedDto): Arrangement {
  return { ...kept, options: wholeOptions(options), container, ...(order && { order }) };
}

/** The width of what it stands in. */
const widthCss = (container: WidthRule): string =>
  container
    .map(({ from, ...piece }) => {
      const rule = `main { width: ${cssLength(piece)}; }`;
      return from > 0 ? `@media (min-width: ${from}px) { ${rule} }` : rule;
    })
    .join('\n');

export const proofRoutes =
  (parts: Needs): FastifyPluginAsync =>
  async (app) => {
    const tries = new Named<ArrangedDto>();

    // Options that are tried may be larger than an address can be: thousands of photos in order, long texts.
    app.post('/api/sets/:id/proofs', async (request: FastifyRequest<{ Params: { id: string } }>) => {
      const set = await findSet(idFrom(request.params.id));
      const arranged = checked(ArrangedDto, request.body);
      const [problem] = arrangementProblems(arranged);
      if (problem !== undefined) throw new ProblemError('impossible-edit', problem);
      return { tried: tries.keep(set.id, arranged) };
    });

    app.get('/proofs/runtime/:file', async (request: FastifyRequest<{ Params: { file: string } }>, reply) => {
      const name = SCRIPTS.find((known) => `${known}.js` === request.params.file);
      if (name === undefined) throw new ProblemError('no-such-file');
      return reply.type('text/javascript; charset=utf-8').send(runtimeFile(`${name}.js`));
    });

    app.get('/proofs/:id/:slot', async (request: Asked, reply) => {
      const set = await findSet(idFrom(request.params.id));
      const site = await parts.sites.get(set.siteId);
      const found = site.slots.find(({ id }) => id === request.params.slot);
      const kept = found && arrangementIn(found);
      if (!kept) throw new ProblemError('no-such-file');
      const { tried, edition, page = '1' } = checked(ProofDto, request.query);
      const as = tried === undefined ? null : tries.of(set.id, tried);
      if (as === undefined)
        throw new ProblemError('no-such-file', 'What was tried is not known any more; try it once more.');
      const arrangement = as ? triedAs(kept, as) : kept;
      const { cell, large } = slotsOfArrangement(arrangement);
      const slots = site.slots.filter(({ id }) => id !== cell.id && id !== large?.id);
      const context = { ...site, slots: [...slots, cell, ...(large ? [large] : [])] };
      // Looked at while it is built, whether the page shows it yet or not.
      const setPlaces = { ...(await setPlacesIn(set)), shown: null };
      const entries = arrangement.options.kind === 'index' ? await entriesOf(site, parts.ledgers) : [];
      const [language = 'en'] = site.languages;
      const members = (await parts.ledgers.get(set.id)).members(cell.id).map((photo) => ({ id: photo }));
      const first = asOrdered(members, arrangement.order).slice(0, MOST_SHOWN);
      const rows = (
        await loadPhotos(
          set.id,
          language,
          first.map((photo) => photo.id),
        )
      )
        .filter((photo) => !photo.binned)
        .map((photo) => rowOf(photo, setPlaces, context, parts.preparer));
      const markup = arrangedMarkup({
        arrangement,
        rows,
        urlOf: (_, { file, format }) => `/files/variants/${file}/${format}`,
        viewOf: (row) => `/files/views/${row.original.hash}/bench`,
        first: true,
        both: site.policy.modern === 'both',
        language,
        page: {
          n: Math.min(Number(page), pagesOf(arrangement.options, rows.length)),
          addressOf: (n) =>
            `?${new URLSearchParams({ ...(tried && { tried }), ...(edition && { edition }), page: String(n) })}`,
        },
        pages: {
          of: (id) => entries.find((entry) => entry.set === id) ?? null,
          addressOf: (entry) => `/preview/${entry.set}/`,
        },
      });
      const films = rows.some((row) => isPoster({ row, cell }));
      const { styles, scripts } = runtimeFor([{ ...cell, films }]);
      return reply.type('text/html; charset=utf-8').send(`<!doctype html>
<html lang="${language}" dir="${directionOf(language)}">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Proof</title>
<style>
body { margin: 16px 0; background: #fff; color: #221f2b; font: 1rem/1.5 system-ui, sans-serif; }
main { margin: 0 auto; }
${widthCss(arrangement.container)}
${styles.map((name) => runtimeFile(`${name}.css`)).join('\n')}
${arrangementRules(arrangement)}
</style>
</head>
<body>
<main>
${markup}
</main>
${scripts.map((name) => `<script src="/proofs/runtime/${name}.js"></script>`).join('\n')}
</body>
</html>
`);
    });
  };
