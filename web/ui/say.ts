/** Seconds as people say them: "40 s", "14 min", "1 h 05". */
export function sayDuration(seconds: number): string {
  if (seconds < 90) return `${Math.max(0, Math.round(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  return minutes < 90 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`;
}

/** Areas in cm², the size a hand knows. */
export function sayArea(mm2: number): string {
  const cm2 = mm2 / 100;
  return `${cm2 < 10 ? cm2.toFixed(1) : Math.round(cm2)} cm²`;
}

export function count(n: number, one: string, many = `${one}s`): string {
  return `${n} ${n === 1 ? one : many}`;
}

/** "Fri 4 Dec", with the year when it is not this one. A day is a day of the calendar ("2026-12-04"), the same wherever it is looked at. */
export function sayDay(day: string): string {
  const date = new Date(`${day}T12:00:00Z`);
  const sameYear = date.getUTCFullYear() === new Date().getFullYear();
  return date.toLocaleDateString('en-GB', { timeZone: 'UTC', weekday: 'short', day: 'numeric', month: 'short', ...(sameYear ? {} : { year: 'numeric' }) });
}

/** "24 Nov, 09:05". */
export function sayDateTime(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
}
