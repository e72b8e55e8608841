import { useEffect, useMemo, useRef, useState, type ReactNode } from 'react';
import { Controller, useForm, type Control, type FieldErrors, type Resolver } from 'react-hook-form';
import * as validators from 'shop-validators';
import styled from 'styled-components';
import {
  readField,
  sayFault,
  SHOP_FIELDS,
  valueAt,
  worst,
  writeField,
  type Field,
  type FieldGroup,
} from '../../core/shop/fields/index.js';
import type { ShopKind, ShopRecords } from '../../core/shop/index.js';
import type { LengthUnit } from '../../core/words/index.js';
import { ApiProblem } from '../api/client.js';
import { colour, radius, space, type, width } from '../tokens.js';
import { Button, MainButton, WordButton } from '../ui/button.js';
import { Picker } from '../ui/picker.js';
import { TextArea, TextInput } from '../ui/plain-fields.js';
import { useSettings } from '../ui/settings.js';
import { ColourSampler } from './colour-sampler.js';
import { keepDraft, keptDraft } from './kept-drafts.js';

type Texts = Record<string, string>;

interface RecordFormProps<K extends ShopKind> {
  readonly kind: K;
  readonly record: ShopRecords[K];
  /** The shop's revision as it is known now. */
  readonly revision: number;
  /** Not saved yet: there is none of this in the shop. */
  readonly isNew?: boolean;
  /** Other texts that follow when one was changed. */
  readonly onText?: (path: string, texts: Readonly<Texts>) => Readonly<Texts>;
  /** What is edited besides the fields: laid over the record when it is saved. */
  readonly more?: Partial<ShopRecords[K]>;
  /** Whether `more` has changes that are not saved. */
  readonly hasMore?: boolean;
  /** Fields that are not asked for here. */
  readonly without?: readonly string[];
  /** @throws ApiProblem */
  readonly onSave: (record: ShopRecords[K], revision: number) => Promise<void>;
  readonly onLeave?: () => void;
  readonly children?: ReactNode;
  /** What else can be done with the record. */
  readonly acts?: ReactNode;
}

const nameOf = (path: string) => path.replace('.', '__');
const fieldsOf = (groups: readonly FieldGroup[]) => groups.flatMap((group) => group.fields);

/** A record's fields, checked by the very schema of the API as they are written. What is wrong is said at the field, and nothing typed is lost. */
export function RecordForm<K extends ShopKind>({
  kind,
  record,
  revision,
  isNew = false,
  onText,
  more,
  hasMore = false,
  without = NONE,
  onSave,
  onLeave,
  children,
  acts,
}: RecordFormProps<K>) {
  const { unit } = useSettings();
  const groups = SHOP_FIELDS[kind];
  const fields = useMemo(() => fieldsOf(groups).filter(({ path }) => !without.includes(path)), [groups, without]);
  const before = useMemo(() => textsOf(fields, record, unit), [fields, record, unit]);
  const kept = useMemo(() => keptDraft(kind, record.id), [kind, record.id]);
  const from = useRef({ revision: kept?.revision ?? revision, texts: kept?.base ?? before });
  const resolver: Resolver<Texts> = (texts) => {
    const read = recordOf(kind, record, fields, texts, unit, more);
    return Object.keys(read.errors).length > 0 ? { values: {}, errors: read.errors } : { values: texts, errors: {} };
  };
  const { control, handleSubmit, formState, reset, setValue, setError, getValues, subscribe } = useForm<Texts>({
    defaultValues: before,
    resolver,
    mode: 'onTouched',
    shouldFocusError: true,
  });
  const unread = useRef(kept);
  const [problem, setProblem] = useState<string | null>(null);
  const { isDirty, isSubmitting, errors, dirtyFields } = formState;
  const isChanged = isDirty || hasMore || isNew;
  // What others changed comes in by itself while nothing is typed here.
  useEffect(() => {
    const draft = unread.current;
    unread.current = null;
    if (draft) {
      for (const [name, text] of Object.entries(draft.texts))
        if (text !== draft.base[name])
          setValue(name, text, { shouldDirty: true, shouldValidate: true, shouldTouch: true });
      return;
    }
    if (isDirty) return;
    from.current = { revision, texts: before };
    reset(before);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [before, revision]);
  useEffect(
    () =>
      subscribe({
        formState: { values: true, isDirty: true },
        callback: ({ values, isDirty: dirty }) =>
          keepDraft(
            kind,
            record.id,
            dirty ? { texts: values, base: from.current.texts, revision: from.current.revision } : null,
          ),
      }),
    [subscribe, kind, record.id],
  );
  const theirs = isDirty ? fields.filter(({ path }) => before[nameOf(path)] !== from.current.texts[nameOf(path)]) : [];
  const save = handleSubmit(async (texts) => {
    setProblem(null);
    const read = recordOf(kind, record, fields, texts, unit, more);
    if (!read.record) return;
    try {
      await onSave(read.record, from.current.revision);
      keepDraft(kind, record.id, null);
      from.current = { revision: revision + 1, texts };
      reset(texts);
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      const name = error.path === undefined ? undefined : nameOf(error.path);
      if (name !== undefined && fields.some(({ path }) => nameOf(path) === name))
        setError(name, { message: error.message });
      else setProblem(error.message);
    }
  });
  const takeTheirs = () => {
    keepDraft(kind, record.id, null);
    from.current = { revision, texts: before };
    reset(before);
    setProblem(null);
  };
  /** Only what was typed here is laid over what there is now. */
  const keepMine = () => {
    const mine = Object.fromEntries(Object.keys(dirtyFields).map((name) => [name, getValues(name)]));
    from.current = { revision, texts: before };
    reset(before);
    for (const [name, text] of Object.entries(mine)) setValue(name, text, { shouldDirty: true });
    setProblem(null);
  };
  const change = (field: Field, text: string) => {
    setValue(nameOf(field.path), text, { shouldDirty: true, shouldTouch: true, shouldValidate: true });
    for (const [path, other] of Object.entries(onText?.(field.path, pathsOf(fields, getValues())) ?? {}))
      setValue(nameOf(path), other, { shouldDirty: true, shouldValidate: true });
  };
  const texts = control._formValues as Texts;
  const now = recordOf(kind, record, fields, { ...before, ...texts }, unit, more, true).record ?? record;
  return (
    <Form onSubmit={(event) => void save(event)} noValidate aria-label={`${record.id === '' ? 'New' : 'Edit'} ${kind}`}>
      <Fields>
        {groups.map(({ title, fields: all, isAsked }) => {
          const asked = all.filter((field) => fields.includes(field));
          if (asked.length === 0 || (isAsked && !isAsked(now as unknown as Record<string, unknown>))) return null;
          return (
            <Group key={title}>
              <legend>{title}</legend>
              <Cells>
                {asked.map((field) => (
                  <FieldCell
                    key={field.path}
                    field={field}
                    unit={unit}
                    control={control}
                    errors={errors}
                    theirs={theirs.includes(field) ? (before[nameOf(field.path)] ?? '') : null}
                    onChange={(text) => change(field, text)}
                  />
                ))}
              </Cells>
            </Group>
          );
        })}
        {children}
      </Fields>
      <Foot>
        {theirs.length > 0 && (
          <Told role="alert">
            This was changed somewhere else in the meantime.{' '}
            <WordButton onPress={keepMine}>Lay what I typed over it</WordButton>{' '}
            <WordButton onPress={takeTheirs}>Take what is there now</WordButton>
          </Told>
        )}
        {problem && <Told role="alert">{problem}</Told>}
        {Object.keys(errors).length > 0 && (
          <Told role="alert">
            {Object.keys(errors).length === 1 ? 'One field is' : `${Object.keys(errors).length} fields are`} not right
            yet. Nothing was saved.
          </Told>
        )}
        <Acts>
          <MainButton type="submit" isDisabled={!isChanged || isSubmitting}>
            {isNew ? 'Add' : 'Save'}
          </MainButton>
          {isDirty && !isNew && <Button onPress={takeTheirs}>Drop what I typed</Button>}
          {isNew && onLeave && <Button onPress={onLeave}>Leave it</Button>}
          {acts}
        </Acts>
      </Foot>
    </Form>
  );
}

const NONE: readonly string[] = [];

function textsOf(fields: readonly Field[], record: object, unit: LengthUnit): Texts {
  return Object.fromEntries(
    fields.map((field) => [
      nameOf(field.path),
      writeField(field, valueAt(record as Record<string, unknown>, field.path), unit),
    ]),
  );
}

function pathsOf(fields: readonly Field[], texts: Readonly<Texts>): Texts {
  return Object.fromEntries(fields.map(({ path }) => [path, texts[nameOf(path)] ?? '']));
}

/** The record as its fields say, or what is wrong with each. `isLoose` leaves out what cannot be read, for what is only shown. */
function recordOf<K extends ShopKind>(
  kind: K,
  record: ShopRecords[K],
  fields: readonly Field[],
  texts: Readonly<Texts>,
  unit: LengthUnit,
  more: Partial<ShopRecords[K]> | undefined,
  isLoose = false,
): { readonly record?: ShopRecords[K]; readonly errors: FieldErrors<Texts> } {
  const errors: Record<string, { type: string; message: string }> = {};
  const made = structuredClone({ ...record, ...more }) as unknown as Record<string, unknown>;
  const groups = SHOP_FIELDS[kind];
  const asked = (field: Field) => groups.find((group) => group.fields.includes(field))?.isAsked ?? (() => true);
  // What a record is decides what is asked of it, so that comes first.
  for (const field of [...fields].sort((a, b) => Number(b.kind === 'choice') - Number(a.kind === 'choice'))) {
    const [outer, inner] = field.path.split('.') as [string, string | undefined];
    if (!asked(field)(made)) {
      made[outer] = null;
      continue;
    }
    const read = readField(field, texts[nameOf(field.path)] ?? '', unit);
    if ('wrong' in read) {
      if (!isLoose) errors[nameOf(field.path)] = { type: 'read', message: read.wrong };
    } else if (inner === undefined) made[outer] = read.value;
    else made[outer] = { ...(made[outer] as object | null), [inner]: read.value };
  }
  if (isLoose) return { record: made as unknown as ShopRecords[K], errors };
  const check = validators[kind];
  // What cannot be read stands there as it was, so the rest can be checked all the same.
  if (!check(made)) {
    const faults = check.errors ?? [];
    for (const path of new Set(faults.map(({ instancePath }) => instancePath))) {
      const at = path.slice(1).replaceAll('/', '.');
      const field = fields.find((one) => one.path === at);
      errors[field ? nameOf(field.path) : nameOf(fields[0]!.path)] ??= {
        type: 'schema',
        message: `${field ? '' : `${at}: `}${sayFault(worst(faults.filter((fault) => fault.instancePath === path))!)}`,
      };
    }
  }
  return Object.keys(errors).length > 0
    ? { errors: errors as FieldErrors<Texts> }
    : { record: made as unknown as ShopRecords[K], errors: {} };
}

interface FieldCellProps {
  readonly field: Field;
  readonly unit: LengthUnit;
  readonly control: Control<Texts>;
  readonly errors: FieldErrors<Texts>;
  /** What stands there by now, when that was changed elsewhere. */
  readonly theirs: string | null;
  readonly onChange: (text: string) => void;
}

function FieldCell({ field, unit, control, errors, theirs, onChange }: FieldCellProps) {
  const name = nameOf(field.path);
  const wrong = errors[name]?.message;
  const sign = field.kind === 'length' ? unit : field.unit;
  const [helpId, wrongId] = [`help-${name}`, `wrong-${name}`];
  const described = [wrong ? wrongId : '', field.help ? helpId : ''].filter(Boolean).join(' ') || undefined;
  return (
    <Controller
      name={name}
      control={control}
      render={({ field: { value = '', onBlur, ref } }) => (
        <FieldBox data-wide={field.kind === 'note' || undefined}>
          <span className="label" id={`label-${name}`}>
            {field.label}
          </span>
          <span className="row">
            {field.kind === 'choice' ? (
              <Picker
                label={field.label}
                value={value}
                options={[
                  ...(field.orNull ? [{ id: '', text: 'not known' }] : []),
                  ...field.options!.map(([id, text]) => ({ id, text })),
                ]}
                onChange={(picked) => {
                  onChange(picked);
                  onBlur();
                }}
              />
            ) : field.kind === 'yes' ? (
              <label className="yes">
                <input
                  ref={ref}
                  type="checkbox"
                  aria-label={field.label}
                  aria-describedby={described}
                  checked={value === 'yes'}
                  onBlur={onBlur}
                  onChange={(event) => onChange(event.target.checked ? 'yes' : 'no')}
                />{' '}
                {value === 'yes' ? 'yes' : 'no'}
              </label>
            ) : field.kind === 'note' ? (
              <TextArea
                ref={ref}
                aria-label={field.label}
                aria-describedby={described}
                value={value}
                onBlur={onBlur}
                onChange={(event) => onChange(event.target.value)}
              />
            ) : field.kind === 'colour' ? (
              <>
                <input
                  type="color"
                  aria-label={`${field.label}, picked`}
                  value={/^#[0-9a-f]{6}$/i.test(value) ? value.toLowerCase() : '#888888'}
                  onChange={(event) => onChange(event.target.value)}
                  onBlur={onBlur}
                />
                <TextInput
                  ref={ref}
                  aria-label={field.label}
                  aria-invalid={wrong !== undefined}
                  aria-describedby={described}
                  value={value}
                  size={9}
                  onBlur={onBlur}
                  onChange={(event) => onChange(event.target.value)}
                />
                <ColourSampler onPick={onChange} />
              </>
            ) : (
              <TextInput
                ref={ref}
                aria-label={field.label}
                aria-invalid={wrong !== undefined}
                aria-describedby={described}
                data-figure={field.kind !== 'text' || undefined}
                value={value}
                onBlur={onBlur}
                onChange={(event) => onChange(event.target.value)}
              />
            )}
            {sign && <span aria-hidden>{sign}</span>}
          </span>
          {wrong && (
            <span className="wrong" id={wrongId} role="alert">
              {wrong}
            </span>
          )}
          {theirs !== null && <span className="wrong">Now: {theirs === '' ? 'empty' : theirs}</span>}
          {field.help && (
            <span className="help" id={helpId}>
              {field.help}
            </span>
          )}
        </FieldBox>
      )}
    />
  );
}

const Form = styled.form`
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
`;
const Fields = styled.div`
  flex: 1;
  min-height: 0;
  overflow-y: auto;
  display: grid;
  align-content: start;
  gap: ${space.m};
  padding: 0 ${space.l} ${space.l};
  @media (max-width: ${width.phone}) {
    overflow: visible;
    padding: 0 ${space.s} ${space.m};
  }
`;
const Group = styled.fieldset`
  border: 0;
  margin: 0;
  padding: 0;
  min-width: 0;
  legend {
    padding: 0 0 ${space.xs};
    font: 650 ${type.body} / 1.3 ${type.text};
  }
`;
const Cells = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(158px, 1fr));
  gap: ${space.s} ${space.m};
`;
const FieldBox = styled.div`
  display: grid;
  align-content: start;
  gap: 3px;
  min-width: 0;
  font-size: ${type.small};
  &[data-wide] {
    grid-column: 1 / -1;
  }
  .label {
    color: ${colour.quiet};
  }
  .row {
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    gap: 3px 6px;
    min-width: 0;
    color: ${colour.quiet};
    font-variant-numeric: tabular-nums;
  }
  .row input:not([type]) {
    min-width: 0;
    width: 100%;
  }
  .row input[data-figure] {
    width: 6.5em;
  }
  .row input[type='color'] + input {
    width: 7em;
  }
  .row button[aria-haspopup] {
    width: 100%;
  }
  .row input[aria-invalid='true'] {
    border-color: ${colour.bad};
  }
  .row > button:not([aria-haspopup]) {
    white-space: nowrap;
  }
  .row input[type='color'] {
    flex: none;
    width: 34px;
    height: 30px;
    padding: 1px;
    border: 1px solid ${colour.line};
    border-radius: ${radius.s};
    background: ${colour.raised};
  }
  .yes {
    display: inline-flex;
    gap: 6px;
    align-items: center;
    min-height: 30px;
    color: ${colour.ink};
  }
  .wrong {
    color: ${colour.bad};
  }
  .help {
    color: ${colour.quiet};
    font-size: 0.75rem;
    line-height: 1.35;
  }
`;
const Foot = styled.div`
  display: grid;
  gap: ${space.s};
  padding: ${space.s} ${space.l} ${space.m};
  border-top: 1px solid ${colour.line};
  @media (max-width: ${width.phone}) {
    padding: ${space.s};
  }
`;
const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.s};
  align-items: center;
`;
const Told = styled.p`
  font-size: ${type.small};
  color: ${colour.bad};
`;
