import { parseDate, type CalendarDate } from '@internationalized/date';
import { useState } from 'react';
import { DatePicker, I18nProvider } from 'react-aria-components';
import styled from 'styled-components';
import { space } from '../tokens.js';
import { WordButton } from '../ui/button.js';
import { DAY_LOCALE, DayParts } from '../ui/day-parts.js';

/**
 * The day a job is due: a day of the calendar, the same wherever it is looked at. What is typed is taken as one step when the field is left; a day
 * picked from the calendar at once.
 */
export function DueDate({
  due,
  onChange,
}: {
  readonly due: string | null;
  readonly onChange: (due: string | null) => void;
}) {
  const saved = due === null ? null : parseDate(due);
  // Being typed; undefined while nothing is.
  const [typed, setTyped] = useState<CalendarDate | null | undefined>(undefined);
  const [isOpen, setOpen] = useState(false);
  const shown = typed === undefined ? saved : typed;
  const take = (day: CalendarDate | null | undefined) => {
    setTyped(undefined);
    // Years that were only begun to be typed are no days.
    if (day !== undefined && (day === null || day.year >= 2000) && (day?.toString() ?? null) !== due)
      onChange(day?.toString() ?? null);
  };
  return (
    <I18nProvider locale={DAY_LOCALE}>
      <Row
        onKeyDownCapture={(event) => {
          if (event.key === 'Enter' && !isOpen) take(typed);
          if (event.key === 'Escape' && !isOpen) setTyped(undefined);
        }}
      >
        <DatePicker
          aria-label="Due date"
          // It was just asked for.
          autoFocus
          value={shown}
          onChange={(day) => setTyped(day)}
          isOpen={isOpen}
          onOpenChange={setOpen}
          onFocusChange={(isFocused) => {
            if (!isFocused && !isOpen) take(typed);
          }}
        >
          <DayParts
            label="Calendar"
            value={shown}
            onPick={(day) => {
              setOpen(false);
              take(day);
            }}
          />
        </DatePicker>
        {due !== null && (
          <WordButton aria-label="No due date" onPress={() => take(null)}>
            no date
          </WordButton>
        )}
      </Row>
    </I18nProvider>
  );
}

const Row = styled.span`
  display: inline-flex;
  align-items: center;
  gap: ${space.xs};
`;
