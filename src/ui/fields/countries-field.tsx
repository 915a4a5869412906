'use client';

import { COUNTRY_CODES, COUNTRY_WAYS, type CountryRule, countryName } from '@/core/declarations';
import { CHOOSE_FIELD, CHOOSE_SMALL, Choose } from '@/ui/choose';
import { CHIP, ChipOff } from './chip-off';

interface CountriesFieldProps {
  id: string;
  rule: CountryRule;
  onChange: (rule: CountryRule) => void;
}

const byName = (a: string, b: string) => countryName(a).localeCompare(countryName(b), 'en');

/** Where a video may be watched: everywhere, only in some countries, or everywhere but in some. */
export function CountriesField({ id, rule, onChange }: CountriesFieldProps) {
  const { way, codes } = rule;
  const free = COUNTRY_CODES.filter((code) => !codes.includes(code)).sort(byName);
  return (
    <div className="grid gap-1.5">
      <Choose
        id={id}
        value={way}
        options={COUNTRY_WAYS.map((each) => [each, each])}
        onChange={(next) => onChange({ ...rule, way: next })}
        className={`${CHOOSE_FIELD} w-full max-w-80`}
      />
      {way !== 'everywhere' && (
        <div className="flex flex-wrap items-center gap-1.5">
          {[...codes].sort(byName).map((code) => (
            <span key={code} className={CHIP}>
              {countryName(code)}
              <ChipOff
                one="country"
                item={countryName(code)}
                onClick={() => onChange({ ...rule, codes: codes.filter((each) => each !== code) })}
              />
            </span>
          ))}
          <Choose
            label="Add a country"
            value=""
            options={[['', 'add a country …'], ...free.map((code): [string, string] => [code, countryName(code)])]}
            onChange={(code) => code !== '' && onChange({ ...rule, codes: [...codes, code] })}
            className={CHOOSE_SMALL}
          />
        </div>
      )}
    </div>
  );
}
