/** A station's part of the recipe: the schema of each of its fields, how it begins, and what becomes of older ones. */
export interface Slice<Decisions> {
  readonly schema: { readonly [Field in keyof Decisions]: object };
  readonly beginning: Decisions;
  /** By the version that is left: the fields in the next version, from a recipe of that version. What is not named stays as it is. */
  readonly upgrades: Readonly<
    Record<number, (old: Readonly<Record<string, unknown>>) => Readonly<Record<string, unknown>>>
  >;
}

/** A change to decisions: each named field replaces the same field, one level deep. */
export type Patch<Decisions> = {
  readonly [Field in keyof Decisions]?: Decisions[Field] extends readonly unknown[] | string | null
    ? Decisions[Field]
    : Partial<Decisions[Field]>;
};
