export { BOND_SCATTER, boundaryBond, type Boundary, chipShare, MIN_FLAKE_UM } from './chip';
export { adhesionClass, adhesionGrade, flakeSizeClass, flakingClass } from './ratings';
