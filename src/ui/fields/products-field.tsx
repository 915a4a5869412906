'use client';

import { type FormEvent, useState } from 'react';
import { gtinFinding, gtinsFromText } from '@/core/declarations';
import { Button } from '@/ui/button';
import { TakeOff } from './take-off';

interface ProductsFieldProps {
  id: string;
  products: string[];
  onChange: (products: string[]) => void;
}

/** Catalogue products by their numbers, each checked by its last digit as it is typed in. */
export function ProductsField({ id, products, onChange }: ProductsFieldProps) {
  const [text, setText] = useState('');
  const add = (event: FormEvent) => {
    event.preventDefault();
    const fresh = gtinsFromText(text).filter((number) => !products.includes(number));
    setText('');
    if (fresh.length > 0) onChange([...products, ...fresh]);
  };
  const typed = gtinsFromText(text).flatMap((number) => gtinFinding(number) ?? []);
  return (
    <div className="grid gap-1.5">
      {products.map((number) => {
        const wrong = gtinFinding(number);
        return (
          <div key={number} className="flex items-center gap-2 text-sm">
            <span className="font-mono">{number}</span>
            {wrong && <span className="text-snag">▲ {wrong}</span>}
            <TakeOff
              label={`Remove the product ${number}`}
              onClick={() => onChange(products.filter((each) => each !== number))}
            />
          </div>
        );
      })}
      <form onSubmit={add} className="flex flex-wrap items-center gap-2">
        <input
          id={id}
          value={text}
          onChange={(event) => setText(event.target.value)}
          placeholder="GTIN, as on the label"
          inputMode="numeric"
          className="w-52 rounded-lg border border-edge bg-card px-3 py-1.5 font-mono text-sm"
        />
        <Button type="submit" className="py-1.5">
          Add
        </Button>
        {typed.length > 0 && text.length > 7 && <span className="text-[13px] text-soft">{typed[0]}</span>}
      </form>
    </div>
  );
}
