export { isClear } from './clear';
export {
  type BoardCentre,
  checkLearned,
  type FactorKey,
  factorKeyOf,
  type FactorKind,
  factorOf,
  type Learned,
  PRIOR_SPREAD,
  type StepFactors,
} from './learned';
export { medium, MEDIUM_KEYS, type MediumKey } from './media';
export { mediumLookup, type MediumLookup } from './own';
export { PARAMETERS } from './parameters';
export { POWDER_SOLIDS } from './powder';
export { substrate, SUBSTRATE_KEYS, type SubstrateKey } from './substrates';
export {
  isOf,
  type Medium,
  MEDIUM_KINDS,
  type MediumKind,
  type MediumParameter,
  type OwnMedium,
  type ParameterInfo,
  type Provenance,
  type OldFinish,
  type Substrate,
  type Trait,
  TRAITS,
} from './types';
