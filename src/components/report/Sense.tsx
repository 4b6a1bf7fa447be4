import classes from './Sense.module.css';

/** Favorable or unfavorable, by letter as well as by color. */
export const Sense = ({ sense }: { readonly sense: 'F' | 'U' }) => (
  <abbr className={classes.sense} data-sense={sense} title={sense === 'F' ? 'favorable' : 'unfavorable'}>
    {sense}
  </abbr>
);
