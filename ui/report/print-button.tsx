'use client';
import { Button } from '../kit/button';

export function PrintButton() {
  return (
    <Button tone="strong" onClick={() => window.print()}>
      Print
    </Button>
  );
}
