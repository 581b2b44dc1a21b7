/** Kept with every stored verdict. Raise it when any judgement can come out differently. */
export const CORE_VERSION = '0.6.0';
