'use client';

export { Modal as DialogPart } from '@mantine/core';
