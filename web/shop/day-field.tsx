import { parseDate } from '@internationalized/date';
import { Button, Calendar, CalendarCell, CalendarGrid, DateInput, DatePicker, DateSegment, Dialog, Group, Heading, I18nProvider, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

/** Weeks begin on Monday, days stand before months. */
const LOCALE = 'en-GB';

/** A day that something was done, as "2026-03-01". */
export function DayField({ label, value, onChange }: { readonly label: string; readonly value: string; readonly onChange: (day: string) => void }) {
  return (
    <I18nProvider locale={LOCALE}>
      <DatePicker aria-label={label} value={parseDate(value)} onChange={(day) => day && day.year >= 1990 && onChange(day.toString())}>
        <Field>
          <DateInput>{(segment) => <Segment segment={segment} />}</DateInput>
          <Open aria-label={`Calendar: ${label}`}>▾</Open>
        </Field>
        <Popover>
          <Sheet>
            <Calendar>
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
    </I18nProvider>
  );
}

const Field = styled(Group)`display: inline-flex; align-items: center; min-height: 30px; padding: 0 2px 0 ${space.s}; border: 1px solid ${colour.line}; border-radius: ${radius.m}; background: ${colour.raised}; > div { display: flex; }`;
const Segment = styled(DateSegment)`padding: 1px; font-variant-numeric: tabular-nums; border-radius: 2px; outline: none; &[data-focused] { background: ${colour.accent}; color: ${colour.accentInk}; }`;
const Open = styled(Button)`border: 0; background: none; color: ${colour.quiet}; min-width: 24px; min-height: 24px; cursor: pointer;`;
const Sheet = styled(Dialog)`padding: ${space.m}; background: ${colour.raised}; border: 1px solid ${colour.line}; border-radius: ${radius.m}; box-shadow: 0 10px 34px ${colour.shadow}; outline: none; font-size: ${type.small};`;
const Head = styled.header`display: flex; align-items: center; justify-content: space-between; padding-bottom: ${space.s}; button { border: 0; background: none; color: ${colour.ink}; min-width: 28px; min-height: 28px; cursor: pointer; } h2 { font-size: ${type.body}; }`;
const Day = styled(CalendarCell)`
  display: grid; place-items: center; width: 32px; height: 32px; border-radius: ${radius.s}; cursor: pointer; outline: none; font-variant-numeric: tabular-nums;
  &[data-outside-month] { display: none; }
  &[data-hovered] { background: ${colour.faint}; }
  &[data-selected] { background: ${colour.accent}; color: ${colour.accentInk}; }
  &[data-focus-visible] { outline: 2px solid ${colour.accent}; outline-offset: 1px; }
`;
