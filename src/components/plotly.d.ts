declare module 'plotly.js-finance-dist-min' {
  export function react(root: HTMLElement, data: object[], layout?: object, config?: object): Promise<void>;
  export function downloadImage(
    picture: { data: object[]; layout: object },
    options: object,
  ): Promise<string>;
  export function purge(root: HTMLElement): void;
}
