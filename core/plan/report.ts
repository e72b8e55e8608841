import type { TaperMap } from '../engines/surface/index.js';
import { ringsToPathData, turnedOver } from '../geometry/index.js';
import { saySideUp, sideUpOf } from '../shop/index.js';
import { formatLength } from '../words/index.js';
import { mirroredFilms, panelsOn, type SheetPlan } from '../laying/index.js';
import { countCuts, NOTHING_CUT, type RecordedCuts } from '../stations/record/index.js';
import { jobCard, jobFigures } from './job-card.js';
import type { Plan } from './plan.js';

/** The plan's figures without its geometry: what the API and the command line report. `recorded` is what was cut, where there is a record. */
export function planReport(plan: Plan, recorded: RecordedCuts = NOTHING_CUT) {
  const { surface, films, build, prepare, sheets, cut, assemble } = plan;
  return {
    stations: jobCard(jobFigures(plan), countCuts(recorded, plan.sheets?.toCut), 'mm'),
    design: surface && {
      widthMm: surface.design.widthMm,
      heightMm: surface.design.heightMm,
      xMm: surface.design.xMm,
      yMm: surface.design.yMm,
      scale: surface.design.scale,
    },
    surface: surface && surfaceReport(plan),
    colours: films?.colours.map(({ colour, areaMm2, pieces, film, difference }) => ({
      colour,
      areaMm2,
      pieces,
      film: film.id,
      difference,
    })),
    layers: build?.layers.map(({ film, order, areaMm2, pieces, holes }) => ({
      film: film.id,
      colour: film.colour,
      order,
      areaMm2,
      pieces,
      holes,
    })),
    trapMm: build?.trapMm,
    marks: prepare?.panels.flatMap(({ number, marks }) =>
      (marks?.marks ?? []).map(({ shape, xMm, yMm }) => ({ panel: number, shape, xMm, yMm })),
    ),
    weeding: prepare?.layers.map(({ layer, panel, border, relief, strips, work, minutes }) => ({
      film: layer.film.id,
      panel: panel.number,
      borders: border.length,
      reliefLines: relief.length,
      strips: strips.length,
      bulkMm: Math.max(0, ...strips.map(({ bulkMm }) => bulkMm)),
      looseParts: work.looseParts,
      smallParts: work.smallParts,
      minutes,
    })),
    counters: prepare?.layers.map(({ layer, panel, weed }) => ({
      film: layer.film.id,
      panel: panel.number,
      counters: weed.counters,
      pieces: weed.pieces,
    })),
    sheets: sheets?.sheets.map((sheet, i) => ({
      id: sheet.id,
      number: i + 1,
      film: sheet.films[0]!.id,
      films: sheet.films.map(({ id }) => id),
      panel: panelsOn(sheet, prepare!)[0]!.number,
      panels: panelsOn(sheet, prepare!).map(({ number }) => number),
      mirrored: sheet.groups.every(({ isMirrored }) => isMirrored),
      sideUp: sheet.films.map((film) => ({
        film: film.id,
        side: sideUpOf(film),
        lies: saySideUp(film, mirroredFilms(sheet.groups).includes(film.id)),
      })),
      piece: sheet.pieces[0]!.id,
      pieces: sheet.pieces.map(({ id }) => id),
      mat: sheet.mat?.id ?? null,
      zones:
        sheet.zones?.map(({ film, piece, xMm, yMm, widthMm, lengthMm }) => ({
          film: film.id,
          piece: piece.id,
          x: xMm,
          y: yMm,
          width: widthMm,
          length: lengthMm,
        })) ?? null,
      section: sheet.section,
      widthMm: widthOf(sheet),
      usedLengthMm: sheet.usedLengthMm,
      takenMm2: sheet.usedMm2,
      foils: foilsReport(sheet),
      leftover: sheet.leftovers.map(({ piece, xMm, yMm, widthMm, lengthMm, keep }) => ({
        piece: piece.id,
        x: xMm,
        y: yMm,
        width: widthMm,
        length: lengthMm,
        keep,
      })),
      groups: sheet.groups.length,
      paths: cut?.programs[i]?.paths.length,
      cutMm: cut?.programs[i]?.cutMm,
      travelMm: cut?.programs[i]?.travelMm,
      seconds: cut?.programs[i]?.seconds,
    })),
    toCut: sheets?.toCut.map(({ film, panel, perStrip, areaMm2, copies, taken }) => ({
      film: film.id,
      panel: panel.number,
      perStrip,
      areaMm2,
      copies,
      taken,
    })),
    density: sheets?.density,
    seconds: cut?.seconds,
    steps: assemble?.steps.map(({ title, text }) => ({ title, text })),
    findings: plan.findings.map(({ code, severity, stage, message, count }) => ({
      code,
      severity,
      stage,
      message,
      count,
    })),
    rulings: plan.rulings.map(({ id, stage, sentence, value, unit, because, overridden }) => ({
      id,
      stage,
      sentence: readAloud(sentence, value, unit),
      value,
      unit,
      because,
      overridden: overridden ?? false,
    })),
  };
}

/** What the surface comes to: angles in degrees, all else in mm, panels from the design's left or upper edge. */
function surfaceReport({ surface, panels }: Plan) {
  const {
    surface: { kind },
    design,
    figures,
    map,
  } = surface!;
  const { widthMm, heightMm, xMm, yMm } = design;
  return {
    kind,
    designMm: { width: widthMm, height: heightMm },
    box: { minX: xMm, minY: yMm, maxX: xMm + widthMm, maxY: yMm + heightMm },
    ...figures,
    limits: figures.limits ?? {},
    ...(map ? { map: mapFigures(map) } : {}),
    ...(panels?.along === 'apart'
      ? { designs: panels.panels.map(({ label, copies, box }) => ({ label, copies, box })) }
      : {}),
    ...(panels && (panels.along === 'across' || panels.along === 'down')
      ? {
          split: panels.along,
          panels: panels.panels.map(({ box, lapMm }) =>
            panels.along === 'across' ? { x0: box.minX, x1: box.maxX, lapMm } : { x0: box.minY, x1: box.maxY, lapMm },
          ),
          panelOrder: panels.laying,
        }
      : {}),
  };
}

/** A map for a taper in figures: `centreDeg` is by atan2(y, x), with y down. */
export function mapFigures({
  apexX,
  apexY,
  innerRadiusMm,
  outerRadiusMm,
  angleRad,
  wide,
  midRadiusMm,
  midV,
}: TaperMap) {
  return {
    apexX,
    apexY,
    innerRadiusMm,
    outerRadiusMm,
    angleDeg: (angleRad * 180) / Math.PI,
    centreDeg: wide === 'foot' ? 90 : -90,
    midRadiusMm,
    midV,
  };
}

/** A ruling's sentence with its value in place. */
function readAloud(sentence: string, value: number | string, unit: string): string {
  const said = typeof value === 'number' ? formatLength(value) : value;
  return sentence.replace('{value}', unit ? `${said} ${unit}` : said);
}

/** The foil that is laid on a sheet, by the piece that it is cut from; mm. */
export function foilsReport({ foils }: Pick<SheetPlan, 'foils'>) {
  return foils.map(({ film, piece, cuts }) => ({
    film: film.id,
    piece: piece.id,
    cuts: cuts.map(({ xMm, yMm, widthMm, lengthMm }) => ({ x: xMm, y: yMm, width: widthMm, length: lengthMm })),
  }));
}

export type PlanReport = ReturnType<typeof planReport>;

/** What goes into the cutter: the piece, or the mat with its blanks. */
function widthOf({ zones, mat, pieces }: SheetPlan): number {
  return zones ? mat!.widthMm : pieces[0]!.widthMm;
}

/** A sheet as the cutter will see it, drawn y down: outlines and blanks in mm at true size. */
export function sheetSvg(sheet: SheetPlan): string {
  const { zones, mat, films } = sheet;
  const [w, h] = [widthOf(sheet), zones ? mat!.lengthMm : Math.ceil(sheet.usedLengthMm + 1)];
  const down = (rings: readonly Float64Array[]) => ringsToPathData(turnedOver(rings, h));
  const colourOf = new Map(films.map(({ id, colour }) => [id, colour]));
  const blanks = (zones ?? []).map(
    ({ xMm, yMm, widthMm, lengthMm }) =>
      `<rect x="${xMm}" y="${h - yMm - lengthMm}" width="${widthMm}" height="${lengthMm}" fill="none" stroke="#999" stroke-width="0.3"/>`,
  );
  const groups = sheet.groups.map(
    (g) =>
      `<path fill="${colourOf.get(g.filmId)!}" fill-rule="evenodd" d="${down(g.contours)}"/><path fill="none" stroke="#555" stroke-width="0.3" d="${down(g.borders)}"/>`,
  );
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">${blanks.join('')}${groups.join('')}</svg>\n`;
}
