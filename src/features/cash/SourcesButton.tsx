'use client';

import { useState } from 'react';
import { Button, Checkbox, Group, Stack, TextInput } from '@mantine/core';
import { CASH_SOURCES, LIMITS, type Book, type CashSource } from '@/core/model';
import { SOURCE_NAMES } from '@/core/report';
import { PanelButton } from '@/components/Opens';
import { dispatch, useBookStore } from '@/store/bookStore';
import { groundNow } from '@/store/ground';
import { setSession } from '@/store/session';

/** Which sources count: of a named forecast, or of a new one. */
export function SourcesButton({ book, forecast }: { readonly book: Book; readonly forecast: string | null }) {
  const readOnly = useBookStore((s) => s.readOnly);
  const { forecasts, own } = book.cash;
  const chosen = forecasts.find((f) => f.id === forecast) ?? null;
  const [draft, setDraft] = useState<readonly CashSource[]>([]);
  const [name, setName] = useState('');
  const without = chosen?.without ?? draft;
  const toggle = (source: CashSource, counts: boolean) => {
    const next = counts ? without.filter((s) => s !== source) : [...without, source];
    if (chosen) dispatch({ type: 'setForecast', forecast: { ...chosen, without: [...next] } });
    else setDraft(next);
  };
  const counted = CASH_SOURCES.length - (chosen?.without.length ?? 0);
  return (
    <PanelButton
      trapFocus
      button={
        <Button>
          {counted === CASH_SOURCES.length ? 'All sources' : `${counted} of ${CASH_SOURCES.length} sources`}
        </Button>
      }
    >
      <Stack gap={6}>
        {CASH_SOURCES.map((s) => (
          <Checkbox
            key={s}
            size="xs"
            label={SOURCE_NAMES[s]}
            checked={!without.includes(s)}
            disabled={readOnly}
            onChange={(e) => toggle(s, e.currentTarget.checked)}
          />
        ))}
        {chosen ? (
          <Group gap={6}>
            <Button
              disabled={readOnly}
              onClick={() =>
                dispatch({ type: 'setCash', change: { own: own === chosen.id ? null : chosen.id } })
              }
            >
              {own === chosen.id ? 'Not our own any more' : 'Make it our own'}
            </Button>
            <Button
              disabled={readOnly}
              onClick={() => {
                dispatch({ type: 'removeForecast', forecast: chosen.id });
                setSession({ cashForecast: null });
              }}
            >
              Forget “{chosen.name}”
            </Button>
          </Group>
        ) : (
          <form
            onSubmit={(e) => {
              e.preventDefault();
              if (name.trim() === '') return;
              const forecast = { name: name.trim(), without: [...draft] };
              if (!dispatch({ type: 'addForecast', forecast }))
                setSession({ cashForecast: groundNow()?.book.cash.forecasts.at(-1)?.id ?? null });
              setName('');
              setDraft([]);
            }}
          >
            <Group gap={6} align="end">
              <TextInput
                size="xs"
                label="Keep these sources as a forecast named"
                maxLength={LIMITS.budgetName}
                value={name}
                onChange={(e) => setName(e.currentTarget.value)}
              />
              <Button type="submit" disabled={readOnly || name.trim() === ''}>
                Keep
              </Button>
            </Group>
          </form>
        )}
      </Stack>
    </PanelButton>
  );
}
