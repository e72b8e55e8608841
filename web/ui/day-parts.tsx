import type { CalendarDate } from '@internationalized/date';
import {
  Button,
  Calendar,
  CalendarCell,
  CalendarGrid,
  DateInput,
  DateSegment,
  Dialog,
  Group,
  Heading,
  Popover,
} from 'react-aria-components';
import styled from 'styled-components';
import { colour, radius, space, type } from '../tokens.js';

/** Weeks begin on Monday, days stand before months. */
export const DAY_LOCALE = 'en-GB';

interface DayPartsProps {
  /** What the button is called that opens the calendar. */
  readonly label: string;
  /** Given when the field does not take a picked day by itself. */
  readonly value?: CalendarDate | null;
  readonly onPick?: (day: CalendarDate) => void;
}

/** What a day is typed and picked in, within a date picker of the components' library. */
export function DayParts({ label, value, onPick }: DayPartsProps) {
  return (
    <>
      <Field>
        <DateInput>{(segment) => <Segment segment={segment} />}</DateInput>
        <Open aria-label={label}>▾</Open>
      </Field>
      <Popover>
        <Sheet>
          <Calendar {...(onPick ? { value: value ?? null, onChange: onPick } : {})}>
            <Head>
              <Button slot="previous">‹</Button>
              <Heading />
              <Button slot="next">›</Button>
            </Head>
            <CalendarGrid>{(date) => <Day date={date} />}</CalendarGrid>
          </Calendar>
        </Sheet>
      </Popover>
    </>
  );
}

const Field = styled(Group)`
  display: inline-flex;
  align-items: center;
  border: 1px solid ${colour.line};
  background: ${colour.docket};
  border-radius: ${radius.s};
  padding: 1px 2px 1px 6px;
  font-size: ${type.small};
  color: ${colour.ink};
  .react-aria-DateInput {
    display: inline-flex;
    font-variant-numeric: tabular-nums;
  }
`;

const Segment = styled(DateSegment)`
  padding: 2px 1px;
  border-radius: 3px;
  min-height: 24px;
  &[data-placeholder] {
    color: ${colour.quiet};
  }
  &[data-focused] {
    outline: none;
    background: ${colour.accent};
    color: ${colour.accentInk};
  }
`;

const Open = styled(Button)`
  border: 0;
  background: none;
  color: ${colour.quiet};
  cursor: pointer;
  min-width: 24px;
  min-height: 24px;
  border-radius: ${radius.s};
`;

const Sheet = styled(Dialog)`
  padding: ${space.m};
  background: ${colour.raised};
  color: ${colour.ink};
  border: 1px solid ${colour.line};
  border-radius: ${radius.m};
  box-shadow: 0 8px 30px ${colour.shadow};
  outline: none;
  font-size: ${type.small};
  table {
    border-spacing: 2px;
  }
  th {
    font-weight: 500;
    color: ${colour.quiet};
  }
`;

const Head = styled.header`
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: ${space.s};
  padding-bottom: ${space.s};
  h2 {
    font: 600 ${type.small} / 1 ${type.text};
    margin: 0;
  }
  button {
    border: 0;
    background: none;
    min-width: 28px;
    min-height: 28px;
    font-size: 1.1rem;
    cursor: pointer;
    color: ${colour.ink};
    border-radius: ${radius.s};
  }
`;

const Day = styled(CalendarCell)`
  min-width: 30px;
  min-height: 28px;
  display: grid;
  place-items: center;
  cursor: pointer;
  border-radius: ${radius.s};
  font-variant-numeric: tabular-nums;
  outline: none;
  &[data-outside-month] {
    color: ${colour.quiet};
  }
  &[data-hovered] {
    background: ${colour.accentWash};
  }
  &[data-selected] {
    background: ${colour.accent};
    color: ${colour.accentInk};
  }
  &[data-focus-visible] {
    box-shadow: 0 0 0 2px ${colour.accent};
  }
`;
