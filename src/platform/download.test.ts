import { wholeLetters } from '@/core/model';
import { fileNameOf } from './download';

test('file names are cut on whole letters', () => {
  for (let n = 70; n < 90; n++) {
    const name = fileNameOf(`${'a'.repeat(n)}🛥🛥🛥`);
    expect(name).toBe(wholeLetters(name));
    expect(name.length).toBeLessThanOrEqual(80);
  }
});
