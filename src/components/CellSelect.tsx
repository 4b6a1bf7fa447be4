import type { ComponentProps } from 'react';
import classes from './CellSelect.module.css';

type Option = { readonly value: string; readonly label: string };

/** A choice within a table: a bare select, since hundreds of them are drawn at once. */
export function CellSelect({
  data,
  ...rest
}: { readonly data: readonly Option[] } & Omit<ComponentProps<'select'>, 'className'>) {
  return (
    <select className={classes.select} {...rest}>
      {data.map((o) => (
        <option key={o.value} value={o.value}>
          {o.label}
        </option>
      ))}
    </select>
  );
}
