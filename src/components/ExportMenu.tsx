'use client';

import { Button, Menu } from '@mantine/core';

/** The export button of a screen. */
export function ExportMenu({ onCsv, onXlsx }: { readonly onCsv: () => void; readonly onXlsx: () => void }) {
  return (
    <Menu position="bottom-end" shadow="sm" transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button>Export ▾</Button>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={onXlsx}>Workbook (XLSX), with formulas</Menu.Item>
        <Menu.Item onClick={onCsv}>Plain table (CSV)</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
}
