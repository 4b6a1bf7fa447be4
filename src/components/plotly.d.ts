declare module 'plotly.js-finance-dist-min' {
  export function react(root: HTMLElement, data: object[], layout?: object, config?: object): Promise<void>;
  export function downloadImage(root: HTMLElement, options: object): Promise<string>;
  export function purge(root: HTMLElement): void;
}
