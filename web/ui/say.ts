/** "Fri 4 Dec", with the year when it is not this one. A day is a day of the calendar ("2026-12-04"), the same wherever it is looked at. */
export function sayDay(day: string): string {
  const date = new Date(`${day}T12:00:00Z`);
  const sameYear = date.getUTCFullYear() === new Date().getFullYear();
  return date.toLocaleDateString('en-GB', {
    timeZone: 'UTC',
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    ...(sameYear ? {} : { year: 'numeric' }),
  });
}

/** "24 Nov, 09:05". */
export function sayDateTime(iso: string): string {
  return new Date(iso).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
}
