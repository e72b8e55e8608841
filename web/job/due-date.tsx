import { parseDate, type CalendarDate } from '@internationalized/date';
import { useState } from 'react';
import { Button, Calendar, CalendarCell, CalendarGrid, DateInput, DatePicker, DateSegment, Dialog, Group, Heading, I18nProvider, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';
import { WordButton } from '../ui/button.js';

/** Weeks begin on Monday, days stand before months. */
const LOCALE = 'en-GB';

/**
 * The day a job is due: a day of the calendar, the same wherever it is looked at. What is typed is taken as one step when the field is left; a day
 * picked from the calendar at once.
 */
export function DueDate({ due, onChange }: { readonly due: string | null; readonly onChange: (due: string | null) => void }) {
  const saved = due === null ? null : parseDate(due);
  // Being typed; undefined while nothing is.
  const [typed, setTyped] = useState<CalendarDate | null | undefined>(undefined);
  const [isOpen, setOpen] = useState(false);
  const shown = typed === undefined ? saved : typed;
  const take = (day: CalendarDate | null | undefined) => {
    setTyped(undefined);
    // Years that were only begun to be typed are no days.
    if (day !== undefined && (day === null || day.year >= 2000) && (day?.toString() ?? null) !== due) onChange(day?.toString() ?? null);
  };
  return (
    <I18nProvider locale={LOCALE}>
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
          <Field>
            <DateInput>{(segment) => <Segment segment={segment} />}</DateInput>
            <Open aria-label="Calendar">▾</Open>
          </Field>
          <Popover>
            <Sheet>
              <Calendar
                value={shown}
                onChange={(day) => {
                  setOpen(false);
                  take(day);
                }}
              >
                <Head>
                  <Button slot="previous">‹</Button>
                  <Heading />
                  <Button slot="next">›</Button>
                </Head>
                <CalendarGrid>{(date) => <Day date={date} />}</CalendarGrid>
              </Calendar>
            </Sheet>
          </Popover>
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

const Row = styled.span`display: inline-flex; align-items: center; gap: ${space.xs};`;

const Field = styled(Group)`
  display: inline-flex; align-items: center; border: 1px solid ${colour.line}; background: ${colour.docket}; border-radius: ${radius.s}; padding: 1px 2px 1px 6px; font-size: ${type.small}; color: ${colour.ink};
  .react-aria-DateInput { display: inline-flex; font-variant-numeric: tabular-nums; }
`;

const Segment = styled(DateSegment)`
  padding: 2px 1px; border-radius: 3px; min-height: 24px;
  &[data-placeholder] { color: ${colour.quiet}; }
  &[data-focused] { outline: none; background: ${colour.accent}; color: ${colour.accentInk}; }
`;

const Open = styled(Button)`border: 0; background: none; color: ${colour.quiet}; cursor: pointer; min-width: 24px; min-height: 24px; border-radius: ${radius.s};`;

const Sheet = styled(Dialog)`
  padding: ${space.m}; background: ${colour.raised}; color: ${colour.ink}; border: 1px solid ${colour.line}; border-radius: ${radius.m}; box-shadow: 0 8px 30px ${colour.shadow}; outline: none; font-size: ${type.small};
  table { border-spacing: 2px; }
  th { font-weight: 500; color: ${colour.quiet}; }
`;

const Head = styled.header`
  display: flex; align-items: center; justify-content: space-between; gap: ${space.s}; padding-bottom: ${space.s};
  h2 { font: 600 ${type.small}/1 ${type.text}; margin: 0; }
  button { border: 0; background: none; min-width: 28px; min-height: 28px; font-size: 1.1rem; cursor: pointer; color: ${colour.ink}; border-radius: ${radius.s}; }
`;

const Day = styled(CalendarCell)`
  min-width: 30px; min-height: 28px; display: grid; place-items: center; cursor: pointer; border-radius: ${radius.s}; font-variant-numeric: tabular-nums; outline: none;
  &[data-outside-month] { color: ${colour.quiet}; }
  &[data-hovered] { background: ${colour.accentWash}; }
  &[data-selected] { background: ${colour.accent}; color: ${colour.accentInk}; }
  &[data-focus-visible] { box-shadow: 0 0 0 2px ${colour.accent}; }
`;
