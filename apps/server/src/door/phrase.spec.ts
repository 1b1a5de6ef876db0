import { isEasy } from './phrase';

describe('a pass phrase', () => {
  it('is easy where it is common, repeated, or lies side by side on a keyboard', async () => {
    for (const phrase of [
      'password1234',
      '123456789012',
      'qwertyuiop12',
      'iloveyouiloveyou',
      'aaaaaaaaaaaaaa',
    ])
      expect(await isEasy(phrase))
        .withContext(phrase)
        .toBeTrue();
  });

  it('is none where four words do not belong together, in any script', async () => {
    for (const phrase of ['five salt lamps burning', 'lámpara de la costa', 'камень лодка вечер соль'])
      expect(await isEasy(phrase))
        .withContext(phrase)
        .toBeFalse();
  });
});
