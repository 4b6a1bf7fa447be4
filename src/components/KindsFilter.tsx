'use client';

import { Button, Checkbox, Stack } from '@mantine/core';
import { PanelButton } from './Opens';

export type KindOption<K extends string> = { readonly value: K; readonly label: string };

/** Several kinds at once: none chosen means all of them. A preset chooses some of them in one press. */
export function KindsFilter<K extends string>({
  options,
  presets,
  chosen,
  all,
  onChosen,
}: {
  readonly options: readonly KindOption<K>[];
  readonly presets: readonly { readonly label: string; readonly values: readonly K[] }[];
  readonly chosen: readonly K[];
  readonly all: string;
  readonly onChosen: (kinds: readonly K[]) => void;
}) {
  const there = new Set(options.map((o) => o.value));
  const same = (values: readonly K[]) =>
    values.length === chosen.length && values.every((v) => chosen.includes(v));
  const offered = presets
    .map((p) => ({ ...p, values: p.values.filter((v) => there.has(v)) }))
    .filter((p) => p.values.length > 0);
  const said =
    offered.find((p) => same(p.values))?.label ??
    (chosen.length === 0
      ? all
      : chosen.length > 2
        ? `${chosen.length} kinds`
        : options
            .filter((o) => chosen.includes(o.value))
            .map((o) => o.label)
            .join(', '));
  return (
    <PanelButton button={<Button aria-label={`Kinds shown: ${said}`}>{said}</Button>}>
      <Stack gap={6}>
        {options.map((o) => (
          <Checkbox
            key={o.value}
            size="xs"
            label={o.label}
            checked={chosen.includes(o.value)}
            onChange={(e) =>
              onChosen(e.currentTarget.checked ? [...chosen, o.value] : chosen.filter((k) => k !== o.value))
            }
          />
        ))}
        {offered.map((p) => (
          <Button key={p.label} onClick={() => onChosen(p.values)}>
            {p.label}
          </Button>
        ))}
        <Button disabled={chosen.length === 0} onClick={() => onChosen([])}>
          {all}
        </Button>
      </Stack>
    </PanelButton>
  );
}
