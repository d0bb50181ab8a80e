import { useSyncExternalStore } from "react";
import { onPlantWords, plantWords, shownZone, type PlantWords } from "./clock";

/** What is everybody's of how things are said, as it stands now. */
export const usePlantWords = (): PlantWords => useSyncExternalStore(onPlantWords, plantWords);

export const usePlantZone = () => shownZone(usePlantWords().zone);
