/** A promise of the core, broken: `find`, which stands once in `core/src/<file>`, becomes `replace`. */
export const NAMED: readonly {
  readonly name: string;
  readonly file: string;
  readonly find: string;
  readonly replace: string;
}[];
