import { declareTasks } from "../tasks"

declareTasks(5)
