#pragma once
#include "Network.h"
