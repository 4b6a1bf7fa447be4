import stage from '@/components/Stage.module.css';

/** A word and a figure on one line of the panel. */
export const classesOfPair = stage.pair!;
