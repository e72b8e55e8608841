/* The package has types for its whole only. */
declare module 'css-tree/parser' {
  export { parse as default } from 'css-tree';
}
declare module 'css-tree/walker' {
  export { walk as default } from 'css-tree';
}
declare module 'css-tree/generator' {
  export { generate as default } from 'css-tree';
}
