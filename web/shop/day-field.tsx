import { parseDate } from '@internationalized/date';
import { DatePicker, I18nProvider } from 'react-aria-components';
import { DAY_LOCALE, DayParts } from '../ui/day-parts.js';

/** A day that something was done, as "2026-03-01". */
export function DayField({
  label,
  value,
  onChange,
}: {
  readonly label: string;
  readonly value: string;
  readonly onChange: (day: string) => void;
}) {
  return (
    <I18nProvider locale={DAY_LOCALE}>
      <DatePicker
        aria-label={label}
        value={parseDate(value)}
        onChange={(day) => day && day.year >= 1990 && onChange(day.toString())}
      >
        <DayParts label={`Calendar: ${label}`} />
      </DatePicker>
    </I18nProvider>
  );
}
