import { createPortal } from 'react-dom';
import styled from 'styled-components';
import type { BatchSheetView } from '../../core/batch/index.js';
import { saySideUp } from '../../core/shop/index.js';
import { formatLength, type LengthUnit } from '../../core/words/index.js';
import { sayCuts, sayFilms, sayLeftover, sayPieceToFetch, saySection, sayOnPiece } from './say-sheet.js';
import { type } from '../tokens.js';
import { piecesOf } from './pieces-of.js';

interface PrintedListsProps {
  readonly title: string;
  readonly lead: string;
  readonly sheets: readonly BatchSheetView[];
  readonly unit: LengthUnit;
  /** What a job is called whose layers lie on them; a job alone needs no name. */
  readonly titleOf?: (jobId: string) => string;
}

/** On paper alone, in place of the page: what to fetch and to cut off, and a card for each mat that says which piece lies where. */
export function PrintedLists({ title, lead, sheets, unit, titleOf = () => '' }: PrintedListsProps) {
  return createPortal(
    <Paper aria-hidden className="paper-only">
      <h1>{title}</h1>
      <p>{lead}</p>
      <table>
        <thead>
          <tr>
            <th>Sheet</th>
            <th>Fetch</th>
            <th>For</th>
            <th>Cut off</th>
            <th>Back to the rack</th>
            <th>Done</th>
          </tr>
        </thead>
        <tbody>
          {piecesOf(sheets).map(({ sheet, zone, film, piece, cuts, isFoil, carries, leftovers }, i) => (
            <tr key={i}>
              <td>{zone === null ? sheet : `${sheet}.${zone}`}</td>
              <td>
                {film.name}, {sayPieceToFetch(piece, unit)}
                {isFoil ? ', laid by hand' : saySection(sheets[sheet - 1]!)}
              </td>
              <td>{sayOnPiece(carries, titleOf) || '–'}</td>
              <td>{sayCuts(cuts, unit) || '–'}</td>
              <td>{leftovers.map((left) => sayLeftover(left, unit)).join(', ') || '–'}</td>
              <td>☐</td>
            </tr>
          ))}
        </tbody>
      </table>
      {sheets.map((sheet, i) =>
        sheet.zones && sheet.zones.length > 1 ? (
          <ZoneCard key={sheet.id} number={i + 1} sheet={sheet} unit={unit} />
        ) : null,
      )}
    </Paper>,
    document.body,
  );
}

/** Which piece lies where on a mat, to the millimetre from its lower left corner. */
function ZoneCard({
  number,
  sheet,
  unit,
}: {
  readonly number: number;
  readonly sheet: BatchSheetView;
  readonly unit: LengthUnit;
}) {
  const mm = (value: number) => formatLength(value, unit);
  const mat = sheet.mat!;
  return (
    <section>
      <h2>
        Sheet {number}: {sayFilms(sheet)}
      </h2>
      <p>
        On the {mat.name}, {mm(mat.widthMm)} × {mm(mat.lengthMm)} {unit}; {sheet.forceG} g at {sheet.speedMmS} mm/s.
      </p>
      <svg viewBox={`-2 -2 ${mat.widthMm + 4} ${mat.lengthMm + 4}`} width="90mm">
        <rect width={mat.widthMm} height={mat.lengthMm} fill="none" stroke="#000" />
        {sheet.zones!.map(({ xMm, yMm, widthMm, lengthMm }, z) => (
          <g key={z}>
            <rect
              x={xMm}
              y={mat.lengthMm - yMm - lengthMm}
              width={widthMm}
              height={lengthMm}
              fill="none"
              stroke="#000"
            />
            <text x={xMm + widthMm / 2} y={mat.lengthMm - yMm - lengthMm / 2 + 5} textAnchor="middle" fontSize="14">
              {z + 1}
            </text>
          </g>
        ))}
      </svg>
      <ol>
        {sheet.zones!.map(({ film, xMm, yMm, widthMm, lengthMm }, z) => (
          <li key={z}>
            {film.name}, {mm(widthMm)} × {mm(lengthMm)}: {mm(xMm)} from the left, {mm(yMm)} from below;{' '}
            {saySideUp(film, sheet.mirroredFilmIds.includes(film.id))}
          </li>
        ))}
      </ol>
    </section>
  );
}

const Paper = styled.div`
  display: none;
  @media print {
    display: block;
    font-size: 11pt;
    h1 {
      font-size: 18pt;
    }
    h2 {
      font-size: 13pt;
    }
    table {
      width: 100%;
      border-collapse: collapse;
      margin: 4mm 0;
    }
    th,
    td {
      text-align: left;
      padding: 1.5mm 2mm;
      border-bottom: 0.3mm solid #999;
      font: 400 10pt/1.3 ${type.text};
    }
    section {
      break-inside: avoid;
      padding-top: 6mm;
    }
  }
`;
