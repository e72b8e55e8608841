import { BATCH_WISH_SCHEMA } from '../core/batch/index.js';
import { PLAIN_SHAPES } from '../core/engines/marks/index.js';
import { SPOT_KINDS } from '../core/engines/weeding/index.js';
import { STATION_STATES } from '../core/plan/index.js';
import { PLACEMENT_SCHEMA } from '../core/stations/artwork/index.js';
import { SURFACE_KINDS } from '../core/stations/surface/index.js';
import { STATIONS } from '../core/words/index.js';
import { FILM_SCHEMA, SHOP_SCHEMAS, SIDES_UP, STOCK_WHYS } from '../core/shop/index.js';

/*
 * JSON schemas of what the API answers, by name: they stand in its OpenAPI document, and every test that asks the API holds the answer
 * against them. No field is left out, so that a new one cannot be forgotten here.
 */

const text = { type: 'string' } as const;
const number = { type: 'number' } as const;
const count = { type: 'integer', minimum: 0 } as const;
const yes = { type: 'boolean' } as const;
const list = (items: object) => ({ type: 'array', items });
const orNull = (schema: object) => ({ anyOf: [schema, { type: 'null' }] });
const oneOf = (...words: readonly (string | null)[]) => ({ enum: words });

/** An object with these fields; those whose name ends in `?` may be missing. */
function fields(properties: Readonly<Record<string, unknown>>) {
  const named = Object.entries(properties).map(([name, schema]) => ({
    name: name.replace(/\?$/, ''),
    schema,
    isAlwaysThere: !name.endsWith('?'),
  }));
  return {
    type: 'object',
    additionalProperties: false,
    required: named.filter((field) => field.isAlwaysThere).map((field) => field.name),
    properties: Object.fromEntries(named.map(({ name, schema }) => [name, schema])),
  };
}

const shape = (name: string) => ({ $ref: `#/components/schemas/${name}` });

const matrix = { type: 'array', items: number, minItems: 6, maxItems: 6 } as const;
const place = { kind: oneOf(...SPOT_KINDS, 'all out'), xMm: number, yMm: number, 'part?': count };
const weedWork = fields({
  sheets: number,
  counters: number,
  looseParts: number,
  smallParts: number,
  strips: number,
  outlineMm: number,
  thinMm: number,
});
const box = fields({ minX: number, minY: number, maxX: number, maxY: number });
const runState = oneOf(
  'cutting',
  'paused',
  'waiting',
  'stuck',
  'interrupted',
  'cancelling',
  'finished',
  'cancelled',
  'failed',
);

const run = {
  id: text,
  sheetId: text,
  state: runState,
  message: text,
  pairsTotal: count,
  pairsDone: count,
  share: number,
  estimateSeconds: number,
  actualSeconds: orNull(number),
  whole: orNull(
    fields({
      parts: count,
      ofParts: count,
      copies: count,
      ofCopies: count,
      'byCopy?': orNull(list(fields({ parts: count, open: list(count) }))),
    }),
  ),
  note: text,
  startedAt: text,
  finishedAt: orNull(text),
};
const jobSummary = {
  id: text,
  title: text,
  customer: text,
  due: orNull(text),
  state: oneOf('new', 'in work', 'cutting', 'cut'),
  updatedAt: text,
  design: orNull(text),
  words: orNull(text),
};
const job = {
  ...jobSummary,
  recipe: { $ref: '#/components/schemas/Recipe' },
  revision: count,
  canUndo: yes,
  canRedo: yes,
  deleted: yes,
};
const source = fields({ id: text, fileName: text, sha256: text });
const finding = fields({
  code: text,
  severity: oneOf('blocker', 'warning', 'note'),
  stage: oneOf(...STATIONS),
  message: text,
  'count?': count,
});
const ruling = fields({
  id: text,
  stage: oneOf(...STATIONS),
  sentence: text,
  value: { anyOf: [number, text] },
  unit: oneOf('mm', '', 'g', 'mm/s'),
  because: list(text),
  overridden: yes,
});

const laid = { xMm: number, yMm: number, widthMm: number, lengthMm: number };
const foils = list(
  fields({ film: shape('Film'), piece: shape('Piece'), cuts: list(fields(laid)), usedLengthMm: number }),
);
/** Which section of a roll a sheet is, of how many. */
const section = orNull(fields({ number: count, of: count }));
const batch = {
  id: text,
  number: orNull(count),
  revision: count,
  createdAt: text,
  wish: BATCH_WISH_SCHEMA,
  jobs: list(fields({ id: text, title: text, customer: text, due: orNull(text) })),
};

export const ANSWERS = {
  JobSummary: fields(jobSummary),
  JobSummaries: list({ $ref: '#/components/schemas/JobSummary' }),
  Job: fields(job),
  DeletedJob: fields({ ...job, batchNumber: orNull(count) }),
  JobWithNotes: fields({
    ...job,
    notes: list(text),
    otherSize: orNull(fields({ label: text, partId: text, place: PLACEMENT_SCHEMA })),
  }),
  Film: FILM_SCHEMA,
  Piece: fields({
    id: text,
    filmId: text,
    kind: oneOf('roll', 'sheet', 'offcut'),
    number: orNull(count),
    widthMm: number,
    lengthMm: number,
    quantity: count,
    edgeMm: number,
  }),
  StockPiece: fields({ ...SHOP_SCHEMAS.pieces.properties, left: number }),
  Mat: fields({ id: text, name: text, widthMm: number, lengthMm: number, edgeMm: number }),
  ShopSettings: SHOP_SCHEMAS.settings,
  MatCard: SHOP_SCHEMAS.mats,
  Blade: SHOP_SCHEMAS.blades,
  Cutter: SHOP_SCHEMAS.cutters,
  Tape: SHOP_SCHEMAS.tapes,
  Press: SHOP_SCHEMAS.presses,
  Maker: SHOP_SCHEMAS.makers,
  Blank: SHOP_SCHEMAS.blanks,
  Shop: fields({
    settings: shape('ShopSettings'),
    films: list(shape('Film')),
    stock: list(shape('StockPiece')),
    mats: list(shape('MatCard')),
    blades: list(shape('Blade')),
    cutters: list(shape('Cutter')),
    tapes: list(shape('Tape')),
    presses: list(shape('Press')),
    makers: list(shape('Maker')),
    blanks: list(shape('Blank')),
    revision: count,
    canUndo: yes,
    canRedo: yes,
  }),
  ShopRevision: fields({ revision: count }),
  FilmsTaken: fields({ added: count, changed: count, revision: count }),
  FilmUse: fields({ jobs: list(fields({ id: text, title: text })), sheets: count }),
  Wear: fields({
    mats: { type: 'object', additionalProperties: count },
    blades: { type: 'object', additionalProperties: number },
  }),
  StockLines: list(
    fields({
      id: count,
      pieceId: text,
      at: text,
      who: text,
      why: oneOf(...STOCK_WHYS),
      amount: number,
      note: text,
      sheetId: orNull(text),
      takesBack: orNull(count),
    }),
  ),
  PieceReceived: fields({ number: orNull(count), revision: count }),
  Picture: fields({ picture: fields({ id: text, fileName: text, sha256: text }), ratio: number }),
  Font: fields({ name: text, source }),
  Fonts: list({ $ref: '#/components/schemas/Font' }),
  Run: fields(run),
  FrozenSheet: fields({
    id: text,
    createdAt: text,
    film: { $ref: '#/components/schemas/Film' },
    piece: orNull({ $ref: '#/components/schemas/Piece' }),
    mat: orNull({ $ref: '#/components/schemas/Mat' }),
    usedLengthMm: number,
    keptMm2: number,
    filmMm2: number,
    filmCost: number,
    cutMm: number,
    estimateSeconds: number,
    pairsTotal: count,
    forceG: number,
    speedMmS: number,
    zones: orNull(
      list(
        fields({ ...laid, film: { $ref: '#/components/schemas/Film' }, piece: { $ref: '#/components/schemas/Piece' } }),
      ),
    ),
    foils,
    leftovers: list(fields({ ...laid, pieceId: text, filmId: text, edgeMm: number, keep: yes })),
    leftoversBookedAt: orNull(text),
    offcutIds: list(text),
    numbersWrittenAt: orNull(text),
    backMm2: number,
    backCost: number,
    batchId: orNull(text),
    restOf: orNull(text),
    decided: oneOf('kept', 'thrown-away', null),
    weedWork: orNull(weedWork),
    weedTimes: list(fields({ startedAt: text, stoppedAt: orNull(text) })),
    groups: list(
      fields({
        jobId: text,
        revision: orNull(count),
        copy: count,
        perStrip: count,
        filmId: text,
        keptMm2: number,
        fingerprint: text,
        matrix,
        contours: count,
        marks: count,
        borders: count,
        weedPlaces: list(fields(place)),
        ticked: list(fields(place)),
        of: orNull(count),
        asked: orNull(count),
        verdict: oneOf('good', 'spoiled', null),
      }),
    ),
    runs: list(fields({ ...run, bookedMm2: orNull(number), bookedCost: orNull(number) })),
  }),
  BuiltWith: list(
    fields({
      renewals: count,
      byColour: { type: 'object', additionalProperties: text },
      films: list(shape('Film')),
      pieces: list(shape('Piece')),
      cutter: fields({ widthMm: number, bladeOffsetMm: number, repeatabilityMm: number }),
    }),
  ),
  JobRevisions: list(fields({ id: text, revision: count })),
  UndoneJobs: fields({
    undone: list(fields({ id: text, revision: count })),
    stayed: list(fields({ id: text, title: text, why: text })),
  }),
  ChangedSince: fields({ title: text, revision: count, stations: orNull(list(oneOf(...STATIONS))) }),
  Batch: fields(batch),
  Batches: list({ $ref: '#/components/schemas/Batch' }),
  BatchPlan: fields({
    sheets: list(
      fields({
        id: text,
        key: text,
        film: shape('Film'),
        films: list(shape('Film')),
        piece: orNull(shape('Piece')),
        pieces: list(shape('Piece')),
        mirroredFilmIds: list(text),
        mat: orNull(shape('Mat')),
        zones: orNull(list(fields({ ...laid, film: shape('Film'), piece: shape('Piece') }))),
        section,
        inCounters: count,
        edges: orNull(fields({ sides: number, bottom: number, top: number })),
        usedLengthMm: number,
        shapes: list(fields({ film: shape('Film'), contours: text, borders: text, places: list(matrix) })),
        carries: list(fields({ jobId: text, filmId: text, copies: count, isMirrored: yes })),
        laid: list(
          fields({
            group: count,
            jobId: text,
            filmId: text,
            fingerprint: text,
            copy: count,
            perStrip: count,
            isPinned: yes,
            xMm: number,
            yMm: number,
          }),
        ),
        onPieces: list(
          list(
            fields({
              jobId: orNull(text),
              panel: fields({ number: count, of: count, label: orNull(text) }),
              groups: count,
              perStrip: count,
            }),
          ),
        ),
        foils,
        leftovers: list(fields({ ...laid, pieceId: text, keep: yes })),
        panels: list(fields({ number: count, of: count, label: orNull(text) })),
        seconds: number,
        paths: count,
        cutMm: number,
        travelMm: number,
        forceG: number,
        speedMmS: number,
        keptMm2: number,
        takenMm2: number,
        value: number,
      }),
    ),
    short: list(fields({ filmId: text, message: text, spacingMm: orNull(number) })),
    loose: count,
    wanted: list(fields({ jobId: text, fingerprints: list(text) })),
    unshared: list(text),
    steps: count,
    stopped: list(fields({ jobId: text, why: text })),
    keptMm2: number,
    takenMm2: number,
    value: number,
    seconds: number,
  }),
  BatchSearched: fields({ batch: shape('Batch'), takenMm2: number, beforeMm2: number }),
  LeftoversBooked: fields({ numbers: list(count), revision: count }),
  SpoiledOfJob: fields({ spoiled: orNull(count), cut: count }),
  LearnedSpares: fields({
    single: fields({ share: number, cut: count, spoiled: count }),
    layered: fields({ share: number, cut: count, spoiled: count }),
  }),
  LearnedWeeding: fields({
    learned: orNull(
      fields({
        figures: fields({
          sheetS: number,
          counterS: number,
          smallPartS: number,
          partS: number,
          stripS: number,
          metreS: number,
          thinMetreS: number,
        }),
        logs: count,
      }),
    ),
  }),
  FrozenSheets: list({ $ref: '#/components/schemas/FrozenSheet' }),
  CutterBusy: fields({
    busy: orNull(fields({ runId: text, state: runState, filmName: text, jobId: text, jobTitle: text })),
  }),
  PlanReport: fields({
    stations: list(fields({ station: oneOf(...STATIONS), state: oneOf(...STATION_STATES), figure: text })),
    'design?': fields({ widthMm: number, heightMm: number, xMm: number, yMm: number, scale: number }),
    'surface?': fields({
      kind: oneOf(...SURFACE_KINDS),
      designMm: fields({ width: number, height: number }),
      box,
      limits: fields({ 'widthMm?': number, 'heightMm?': number }),
      'seenAtOnceMm?': number,
      'spanDeg?': number,
      'strainPct?': number,
      'map?': fields({
        apexX: number,
        apexY: number,
        innerRadiusMm: number,
        outerRadiusMm: number,
        angleDeg: number,
        centreDeg: number,
        midRadiusMm: number,
        midV: number,
      }),
      'split?': oneOf('across', 'down'),
      'panels?': list(fields({ x0: number, x1: number, lapMm: number })),
      'panelOrder?': list(count),
      'designs?': list(fields({ label: orNull(text), copies: count, box })),
    }),
    'colours?': list(fields({ colour: text, areaMm2: number, pieces: count, film: text, difference: number })),
    'layers?': list(fields({ film: text, colour: text, order: count, areaMm2: number, pieces: count, holes: count })),
    'trapMm?': number,
    'marks?': list(fields({ panel: count, shape: oneOf(...PLAIN_SHAPES, 'notched bar'), xMm: number, yMm: number })),
    'weeding?': list(
      fields({
        film: text,
        panel: count,
        borders: count,
        reliefLines: count,
        strips: count,
        bulkMm: number,
        looseParts: count,
        smallParts: count,
        minutes: number,
      }),
    ),
    'counters?': list(fields({ film: text, panel: count, counters: count, pieces: count })),
    'sheets?': list(
      fields({
        id: text,
        number: count,
        film: text,
        films: list(text),
        panel: count,
        panels: list(count),
        mirrored: yes,
        sideUp: list(fields({ film: text, side: { enum: SIDES_UP }, lies: text })),
        piece: text,
        pieces: list(text),
        mat: orNull(text),
        zones: orNull(list(fields({ film: text, piece: text, x: number, y: number, width: number, length: number }))),
        section,
        widthMm: number,
        usedLengthMm: number,
        takenMm2: number,
        foils: list(
          fields({
            film: text,
            piece: text,
            cuts: list(fields({ x: number, y: number, width: number, length: number })),
          }),
        ),
        leftover: list(fields({ piece: text, x: number, y: number, width: number, length: number, keep: yes })),
        groups: count,
        'paths?': count,
        'cutMm?': number,
        'travelMm?': number,
        'seconds?': number,
      }),
    ),
    'toCut?': list(fields({ film: text, panel: count, perStrip: count, areaMm2: number, copies: count, taken: count })),
    'density?': number,
    'seconds?': number,
    'steps?': list(fields({ title: text, text })),
    findings: list(finding),
    rulings: list(ruling),
  }),
  Devices: fields({
    open: orNull(fields({ url: text, isSecure: yes })),
    wanted: orNull(fields({ address: text, port: count, hasCertificate: yes })),
    addresses: list(text),
    devices: list(fields({ id: text, name: text, letInAt: text, seenAt: text })),
    knocks: list(fields({ at: text, from: text, what: text })),
  }),
  PairingCode: fields({ url: text, size: count, rows: list(text), until: text }),
  LetIn: fields({ name: text }),
  Asker: fields({ device: orNull(text) }),
  Health: fields({ ok: yes }),
  /** What a simulated cutter answers is its own. */
  CutterAnswer: { type: 'object' },
} as const;

export type AnswerName = keyof typeof ANSWERS;
