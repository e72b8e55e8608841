/** Film taken for one sheet: the piece cut off, what stays on the job, what it costs. */
export interface FilmUse {
  readonly filmId: string;
  readonly takenMm2: number;
  readonly keptMm2: number;
  readonly cost: number;
}

/** Film used by a sheet: its width times the length taken off. Costs are in the shop's currency, per m² with the waste. */
export function filmUse(
  film: { readonly id: string; readonly costPerM2: number },
  sheet: { readonly widthMm: number; readonly usedLengthMm: number; readonly keptMm2: number },
): FilmUse {
  const takenMm2 = sheet.widthMm * sheet.usedLengthMm;
  return { filmId: film.id, takenMm2, keptMm2: sheet.keptMm2, cost: (takenMm2 / 1e6) * film.costPerM2 };
}
